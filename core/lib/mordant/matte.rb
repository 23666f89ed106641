# frozen_string_literal: true

module Mordant
  # What of a picture a step acts on: 0 to 1 for each pixel.
  #
  # A matte is built from contributors, one class a file in matte/, a descendant of Contributor
  # that declares its parameters as a step does, and answers
  #
  #   weights(sight)   a Numo::SFloat [n], 0..1, of the moment's window; see Sight
  #
  # and then refined, see Refinement. Sizes are shares of the picture's height, so that a proxy looks
  # as its master does.
  module Matte
    # Share of a patch's pixels at either end that a pick leaves out of account.
    PICKED = 0.02
    # What a pick in the picture does: it begins anew, or takes more or fewer colours in.
    PICKS = %w[fresh more fewer].freeze
    SHARPEST = 1e-4 # of a fall, in whatever it is measured

    class << self
      # @return [Array<Class>] every kind of contributor there is, by id
      def kinds
        LOADER.eager_load_dir(File.join(__dir__, "matte"))
        @kinds = Contributor.subclasses.select(&:name).sort_by(&:id) unless @kinds&.size == Contributor.subclasses.size
        @kinds
      end

      # @raise [UnknownIdError]
      def fetch(id) = kinds.find { |kind| kind.id == id.to_s } || raise(UnknownIdError.new("contributor", id, kinds.map(&:id)))

      # @return [Array<Class>] every kind of refinement there is, in the order that they are mostly wanted in
      def refinements
        LOADER.eager_load_dir(File.join(__dir__, "matte/refinements"))
        Refinement.subclasses.select(&:name).sort_by { |kind| [Refinement::ORDER.index(kind.id) || Refinement::ORDER.size, kind.id] }
      end

      # Places of a window's pixels from the middle of the picture, in its heights.
      #
      # @param moment [Grade::Moment]
      # @param carried [Track::Map, nil] where a path has taken what lies there
      # @return [Array<Numo::SFloat>] across and down, as planes or as one row and one column
      def places(moment, carried = nil)
        across, down = moment.places.map { |place| place / moment.height }
        carried ? carried.inverse.call(across, down).map { |plane| plane + Numo::SFloat.zeros(moment.window.height, moment.window.width) } : [across, down]
      end

      # From 0 to 1 without a corner at either end: 3 x^2 - 2 x^3.
      #
      # @param share [Numo::SFloat] used up; below 0 is 0, above 1 is 1
      # @return [Numo::SFloat]
      def smooth(share)
        held = share.clip(0.0, 1.0)
        share.free # what is freed at once is used again while it is near the processor
        bend = held * -2.0
        bend.inplace + 3.0
        bend.inplace * held
        bend.inplace * held
        held.free
        bend.out_of_place!
      end

      # 1 up to an end, and from there to 0 over a softness.
      #
      # @param beyond [Numo::SFloat] the end, negative before it; used up
      # @param softness [Float]
      # @return [Numo::SFloat]
      def fall(beyond, softness)
        beyond.inplace * (-1.0 / [softness, SHARPEST].max)
        beyond.inplace + 1.0
        smooth(beyond.out_of_place!)
      end
    end
  end
end
