# frozen_string_literal: true

module Mordant
  module Deliver
    # Where two shots of a transition are mixed: in log codes of the working space, in linear light, or in display
    # codes, those of each output by itself.
    #
    # In log codes the middle of a dissolve looks like the middle of both, lights do not burn through it, and
    # every output shows the same transition; so they are the default. In linear light it is as if both were
    # exposed on one frame: lights stay above all else for longest. In display codes it is as where finished
    # pictures are dissolved.
    class Mixing
      DOMAINS = {
        "log" => "log codes of the working space",
        "linear" => "linear light",
        "display" => "display codes of each output"
      }.freeze
      ABOUT = {
        "log" => "As usual: the middle of a dissolve looks like the middle of both shots, lights do not burn through it, and every output shows the same.",
        "linear" => "As if both were exposed on one frame: lights stay above all else for longest.",
        "display" => "As where finished pictures are dissolved: each output mixes the codes that it shows."
      }.freeze

      # @param domain [String] a key of DOMAINS
      # @param space [Colour::WorkingSpace]
      # @raise [ParameterError]
      def initialize(domain = "log", space = Colour::WorkingSpace.default)
        raise ParameterError.new(path: "mixing", expected: DOMAINS.keys.join(", "), found: domain) unless DOMAINS.key?(domain)

        @domain = domain
        @there, @back = [[space.log, space.linear], [space.linear, space.log]].map { |from, to| Pointwise::Chain.new(Colour::Conversion.between(from, to, nil)) } if domain == "linear"
        freeze
      end

      # @param outgoing [Frame] log codes of the working space
      # @param incoming [Frame] the same
      # @param layer [Cut::Timeline::Layer] of the incoming one
      # @param window [Grade::Window, nil] that both are of a whole picture
      # @param raster [Array<Integer>] width and height of that
      # @return [Frame] log codes of the working space; see Mixed
      def call(outgoing, incoming, layer, window: nil, raster: [incoming.width, incoming.height])
        weights = layer.share
        weights = layer.wipe.weights(weights, raster, window || Grade::Window.whole(*raster)).reshape(1, incoming.size) if layer.wipe
        return Mixed.new(outgoing, incoming, weights) if @domain == "display"
        Blended.new(incoming, blended(outgoing.rgb, incoming.rgb, weights), weights)
      end

      # @return [Numo::SFloat] [3, n]
      def self.mix(outgoing, incoming, weights) = outgoing * (1.0 - weights) + incoming * weights

      # A mixed frame, of which an output that makes something else of either shot shows both, by how much there is of each.
      class Blended < Frame
        def initialize(frame, rgb, weights)
          super(rgb, width: frame.width, height: frame.height, encoding: frame.encoding, place: frame.place)
          @weights = weights
        end

        # @see Frame#shown
        def shown(apart: false)
          return yield(self, :incoming) unless apart

          outgoing, incoming = %i[outgoing incoming].map { |side| yield self, side }
          incoming.with(Mixing.mix(outgoing.rgb, incoming.rgb, @weights))
        end
      end

      # Two frames that are mixed in the codes of each output. In log codes of the working space, where nothing is
      # shown yet, they are mixed there.
      class Mixed < Frame
        def initialize(outgoing, incoming, weights)
          super(Mixing.mix(outgoing.rgb, incoming.rgb, weights), width: incoming.width, height: incoming.height, encoding: incoming.encoding, place: incoming.place)
          @both, @weights = [outgoing, incoming], weights
        end

        # @see Frame#shown
        def shown(**)
          outgoing, incoming = @both.zip(%i[outgoing incoming]).map { |frame, side| yield frame, side }
          incoming.with(Mixing.mix(outgoing.rgb, incoming.rgb, @weights))
        end
      end

      private

      def blended(outgoing, incoming, weights)
        return Mixing.mix(outgoing, incoming, weights) if @domain == "log"

        @back.call(Mixing.mix(@there.call(outgoing), @there.call(incoming), weights))
      end
    end
  end
end
