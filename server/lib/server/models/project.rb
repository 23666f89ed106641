# frozen_string_literal: true

module Server
  # Colour management choices, raster, rate, clips and cuts, and the history of
  # what was done to its grades.
  class Project < Record
    has_many :clips
    has_many :cuts
    has_many :intakes
    has_many :history, class_name: "Server::Change"
    belongs_to :head_change, class_name: "Server::Change", optional: true

    # @return [Rational] frames a second
    def rate = Rational(rate_numerator, rate_denominator)

    # @return [Mordant::Grade::View]
    def view = Mordant::Grade::View.new(encoding: view_encoding, rendering: view_rendering)

    def to_h
      {id:, name:, rate: rate.to_s, width:, height:, working_space:,
       view: {encoding: view_encoding, rendering: view_rendering, label: view.to_s},
       undo: head_change&.words, redo: Change.next_of(self)&.words}
    end
  end
end
