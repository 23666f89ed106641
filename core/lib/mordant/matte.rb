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
        Mordant.load_folder(File.join(__dir__, "matte"))
        @kinds = Contributor.subclasses.select(&:name).sort_by(&:id) unless @kinds&.size == Contributor.subclasses.size
        @kinds
      end

      # @raise [UnknownIdError]
      def fetch(id) = kinds.find { |kind| kind.id == id.to_s } || raise(UnknownIdError.new("contributor", id, kinds.map(&:id)))

      # @return [Array<Class>] every kind of refinement there is, in the order that they are mostly wanted in
      def refinements
        Mordant.load_folder(File.join(__dir__, "matte/refinements"))
        Refinement.subclasses.select(&:name).sort_by { |kind| [Refinement::ORDER.index(kind.id) || Refinement::ORDER.size, kind.id] }
      end

      # Places of a window's pixels from the middle of the picture, in its heights.
      #
      # @param moment [Grade::Moment]
      # @return [Array<Numo::SFloat>] across, one row, and down, one column
      def places(moment) = moment.places.map { |place| place / moment.height }

      # A formula over places of a window's pixels, band by band.
      #
      # @param moment [Grade::Moment]
      # @param carried [Track::Map, nil] where a path has taken what lies there
      # @yieldparam across [Numo::SFloat, Pointwise::Recorded] see Pointwise::Sweep
      # @yieldparam down [Numo::SFloat, Pointwise::Recorded]
      # @yieldreturn [Numo::SFloat, Pointwise::Recorded]
      # @return [Numo::SFloat] [n]
      def placed(moment, carried)
        width, (across, down) = moment.window.width, places(moment)
        back = carried&.inverse
        sweep = Pointwise::Sweep.new(2) { |*from| [yield(*(back ? back.call(*from) : from))] }
        rows = (Pointwise::SHORT / width).clamp(1, moment.window.height)
        band = Numo::SFloat.zeros(rows, width)
        across = (band + across).reshape(band.size)
        out = Numo::SFloat.new(moment.window.size).allocate
        (0...moment.window.height).each_slice(rows) do |some|
          range = (some.first * width)...((some.last + 1) * width)
          own = (band[0...some.size, true] + down[some.first..some.last, true]).reshape(range.size)
          out[range] = sweep.call(across[0...range.size], own).first
        end
        out
      end

      # From 0 to 1 without a corner at either end: 3 x^2 - 2 x^3.
      #
      # @param share [Numo::SFloat, Pointwise::Recorded] below 0 is 0, above 1 is 1
      # @return [Numo::SFloat, Pointwise::Recorded]
      def smooth(share) = share.clip(0.0, 1.0).then { |held| (held * -2.0 + 3.0) * held * held }

      # 1 up to an end, and from there to 0 over a softness.
      #
      # @param beyond [Numo::SFloat, Pointwise::Recorded] the end, negative before it
      # @param softness [Float]
      # @return [Numo::SFloat, Pointwise::Recorded]
      def fall(beyond, softness) = smooth(beyond * (-1.0 / [softness, SHARPEST].max) + 1.0)
    end
  end
end
