# frozen_string_literal: true

module Mordant
  module Grade
    # The temperature and tint that make a patch of the picture grey, by what a Balance
    # does with them (see Steps::Balance): the stops by which blue is over red, and by
    # which red and blue are over green, in points of 0.02 stops.
    #
    # The patch is taken by its medians, so that noise and a few odd pixels do not count.
    class NeutralPick
      # Codes from here on may be clipped; share of such pixels that is refused.
      CLIPPED = 0.985
      MOST_CLIPPED = 0.1
      DARKEST = 2.0**-12 # light below which a patch is mostly noise
      LEAST_PIXELS = 9

      # @return [Float] points
      attr_reader :temperature, :tint

      # @param codes [Media::Codes] the patch, as decoded
      # @param before [Plan] of the steps before the Balance
      # @param balance [Steps::Balance] whose other numbers stand
      # @raise [ParameterError] of a patch that cannot be trusted, with the reason
      def initialize(codes, before:, balance:)
        refuse("a patch of #{LEAST_PIXELS} pixels or more", codes.width * codes.height) if codes.width * codes.height < LEAST_PIXELS
        refuse_clipped(codes)
        red, green, blue = stops(light(codes, before), balance, before.space)
        @temperature = point(blue - red)
        @tint = point((red + blue) / 2 - green)
        freeze
      end

      # @return [Hash] parameters of a Balance
      def to_h = {"temperature" => temperature, "tint" => tint}

      private

      def refuse_clipped(codes)
        %w[red green blue].each_with_index do |name, channel|
          share = (codes.rgb[channel, true] >= CLIPPED * 65_535).count_true.to_f / codes.rgb.shape[1]
          refuse("a patch that is not clipped; pick something darker", "#{(share * 100).round} % of its #{name} at the end of the codes") if share > MOST_CLIPPED
        end
      end

      # @return [Array<Float>] median light of red, green, blue before the Balance
      def light(codes, before)
        log = Numo::DFloat.cast(before.run(codes).rgb)
        Array.new(3) { |channel| before.space.transfer.decode(log[channel, true].dup).median }
      end

      # Above the light that the Balance takes to black, which stays where it is.
      def stops(light, balance, space)
        light.zip(balance.exposures, balance.anchors(space)).map do |value, exposure, anchor|
          above = value * 2.0**exposure - anchor
          refuse("a patch with light in every channel; pick something brighter", light.map { |x| x.round(5) }) if above < DARKEST
          Math.log2(above)
        end
      end

      def point(stops)
        range = Steps::Balance.parameters.fetch(:temperature).range
        points = (stops / Steps::Balance::STOPS_A_POINT).round(2)
        range.cover?(points) ? points : refuse("a patch within #{range.end.to_i} points of grey; it is no neutral thing", points)
      end

      def refuse(expected, found) = raise(ParameterError.new(path: "patch", expected:, found:))
    end
  end
end
