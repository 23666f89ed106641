# frozen_string_literal: true

module Server
  # Colour management choices, raster, rate, clips and cuts, and the history of
  # what was done to its grades.
  class Project < Record
    include Undoable

    KEPT = %w[working_space targets input_rules canvas output_range compress_gamut].freeze

    has_many :clips
    has_many :cuts
    has_many :intakes
    has_many :stills
    has_many :history, class_name: "Server::Change"
    belongs_to :head_change, class_name: "Server::Change", optional: true

    # @return [Rational] frames a second
    def rate = Rational(rate_numerator, rate_denominator)

    # @return [Mordant::Colour::WorkingSpace]
    def space = Mordant::Colour::WorkingSpace.fetch(working_space)

    # @return [Array<Target>] what pictures are made for; the first one leads
    def views = targets.map { |document| Target.from(document) }

    # @return [Mordant::Grade::View] of the leading target
    def view = views.first.view

    # @param id [String, nil] of a target; one that is gone leaves the leading one
    # @return [Mordant::Grade::View]
    def view_of(id) = (views.find { |target| target.id == id } || views.first).view

    # @param recipe [Mordant::Grade::Recipe]
    # @param source [String] encoding id of what goes in
    # @return [Mordant::Grade::Plan]
    def plan(recipe, source)
      Mordant::Grade::Plan.new(recipe:, source:, space:, compress: compress_gamut)
    end

    # @return [Mordant::Grade::Output]
    def output(view = self.view) = Mordant::Grade::Output.for(view, space)

    # What every picture of the project depends on besides clip and recipe.
    def picture_stamp
      Digest::SHA256.hexdigest([working_space, compress_gamut, targets.first, view.stamps].to_json)[0, 12]
    end

    def to_h
      {id:, name:, rate: rate.to_s, width:, height:, working_space:, space: space.to_h, canvas:, targets: views.map(&:to_h),
       stamp: picture_stamp, undo: head_change&.words, redo: Change.next_of(self)&.words}
    end
  end
end
