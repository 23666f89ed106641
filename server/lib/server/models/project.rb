# frozen_string_literal: true

module Server
  # Colour management choices, raster, rate, clips and cuts, and the history of
  # what was done to its grades.
  class Project < Record
    include Undoable

    KEPT = %w[working_space targets input_rules canvas output_range compress_gamut mixing].freeze

    has_many :clips
    has_many :cuts
    has_many :intakes
    has_many :stills
    has_many :history, class_name: "Server::Change"
    belongs_to :head_change, class_name: "Server::Change", optional: true

    # @return [Rational] frames a second
    def rate = Rational(rate_numerator, rate_denominator)

    # Takes it away with its cuts, grades and history; footage, swatches and deliveries stay.
    #
    # @raise [Mordant::ParameterError] while something of it is being delivered
    def remove
      busy = Output.joins(order: :cut).where(cuts: {project_id: id}).where.not(status: Output::OVER).first
      raise Mordant::ParameterError.new(path: "project", expected: "no output of it in the queue; cancel them first", found: busy.path) if busy

      stills.each { |still| FileUtils.rm_f(still.file) }
      transaction do # what belongs to either goes along, see the migrations; shots before the clips they are of
        Cut.where(project_id: id).delete_all
        Project.where(id:).delete_all
      end
    end

    # Says where its history stands. What is more than recipes has other screens read the cut anew.
    #
    # @param change [Integer, nil] id
    # @param rows [Array<Undoable>] that have changed
    def stand_at(change, rows) = update!(head_change_id: change, turn: turn + (rows.all?(Recipe) ? 0 : 1))

    # Something of it is another that the history does not keep: other screens read the cut anew.
    def turn_over = self.class.where(id:).update_all("turn = turn + 1")

    # Takes raster and rate from most of the clips of its first cut, unless they were given.
    #
    # @param clips [Array<Clip>]
    def follow(clips)
      return if fixed

      most = ->(values) { values.tally.max_by(&:last).first }
      width, height = most[clips.map { |clip| [clip.width, clip.height] }]
      rate = most[clips.map(&:rate)]
      update!(width:, height:, rate_numerator: rate.numerator, rate_denominator: rate.denominator, fixed: true)
    end

    # @return [Mordant::Colour::WorkingSpace]
    def space = Mordant::Colour::WorkingSpace.fetch(working_space)

    # @return [Array<Target>] what pictures are made for; the first one leads
    def views
      return @views.last if @views&.first == targets

      Target.list(targets).tap { |list| @views = [targets.deep_dup, list] }
    end

    # @return [Mordant::Grade::View] of the leading target
    def view = views.first.view

    # @return [Target, nil] that renditions are made of
    def hdr = views.find(&:leads?)

    # @param id [String, nil] of a target; one that is gone leaves the leading one
    # @return [Mordant::Grade::View]
    def view_of(id) = (views.find { |target| target.id == id } || views.first).view

    # @param recipe [Mordant::Grade::Recipe]
    # @param source [String] encoding id of what goes in
    # @return [Mordant::Grade::Plan]
    def plan(recipe, source)
      Mordant::Grade::Plan.new(recipe:, source:, space:, compress: compress_gamut)
    end

    # @return [Mordant::Deliver::Mixing] where its transitions are mixed
    def transitions = Mordant::Deliver::Mixing.new(mixing, space)

    # @return [Mordant::Grade::Output]
    def output(view = self.view) = Mordant::Grade::Output.for(view, space)

    # Of the library, that its pictures are made with, once they have been looked for; see Pictures::Depends.
    attr_accessor :files

    # @return [Hash{Symbol => String}] what undo would take back, and redo bring, in words
    def steps
      return OwnHistory.new(self, Present.person).words if Present.person

      {undo: head_change&.words, redo: Change.next_of(self)&.words}
    end

    # @param steps [Hash] as #steps; lists of projects leave them out, as they are looked for in each history by itself
    def to_h(steps: self.steps)
      {id:, turn:, head: head_change_id, name:, rate: rate.to_s, width:, height:, fixed:, working_space:, space: space.to_h, canvas:, targets: views.map(&:to_h),
       stamp: Pictures::Depends.project(self), **steps}
    end
  end
end
