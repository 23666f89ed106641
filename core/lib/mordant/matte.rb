# frozen_string_literal: true

module Mordant
  # What of a picture a step acts on: 0 to 1 for each pixel.
  #
  # A matte is built from contributors, one class a file in matte/, a descendant of Contributor
  # that declares its parameters as a step does, and answers
  #
  #   weights(rgb, moment, space)   a Numo::SFloat [n], 0..1, of the moment's window: rgb are log
  #                                 codes of the working space as the step sees them
  #
  # Sizes are shares of the picture's height, so that a proxy looks as its master does.
  module Matte
    class << self
      # @return [Array<Class>] every kind of contributor there is, by id
      def kinds
        LOADER.eager_load_dir(File.join(__dir__, "matte"))
        @kinds = Contributor.subclasses.select(&:name).sort_by(&:id) unless @kinds&.size == Contributor.subclasses.size
        @kinds
      end

      # @raise [UnknownIdError]
      def fetch(id) = kinds.find { |kind| kind.id == id.to_s } || raise(UnknownIdError.new("contributor", id, kinds.map(&:id)))

      # From 0 to 1 without a corner at either end: 3 x^2 - 2 x^3.
      #
      # @param share [Numo::SFloat] used up; below 0 is 0, above 1 is 1
      # @return [Numo::SFloat]
      def smooth(share)
        held = share.clip(0.0, 1.0)
        held * held * (held * -2.0 + 3.0)
      end
    end
  end
end
