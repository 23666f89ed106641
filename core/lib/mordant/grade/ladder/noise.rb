# frozen_string_literal: true

require "digest"

module Mordant
  module Grade
    class Ladder
      # A tile of a step's noise as a screen is sent it, which it lays side by side over the picture, somewhere else in each frame. Immutable.
      class Noise
        EDGE = 256 # pixels
        REACH = 4.0 # standard deviations that codes stand between, about 0
        KEPT = 8 # tiles of a third of a megabyte

        class << self
          # @param step [Steps::Step] that is noisy
          # @param raster [#width, #height] of the start picture
          # @return [Noise]
          def of(step, raster)
            @kept ||= {}
            digest = Digest::SHA256.hexdigest([ENGINE, step.class.id, step.tile_key(raster)].to_json)[0, 16]
            found = @kept.delete(digest) || new(step.tile(raster, EDGE), digest)
            @kept.shift while @kept.size >= KEPT
            @kept[digest] = found
          end
        end

        # @return [String] of all that it depends on
        attr_reader :digest
        # @return [String] 16-bit red, green, blue of EDGE x EDGE pixels
        attr_reader :words

        # @param values [Numo::SFloat] [3, EDGE**2] of variance 1
        def initialize(values, digest)
          @digest = digest
          shares = ((values * (0.5 / REACH)) + 0.5).clip(0.0, 1.0)
          @words = Media::Integers.interleave(Frame.new(shares, width: EDGE, height: EDGE, encoding: "srgb"), 16).to_binary
          freeze
        end

        # @param step [Steps::Step] at a frame
        # @return [Hash] what a screen is told
        def to_h_at(step) = {name: digest, edge: EDGE, reach: REACH, at: step.laid(EDGE)}
      end
    end
  end
end
