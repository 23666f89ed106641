# frozen_string_literal: true

module Mordant
  module Calibration
    # A screen as it was read: black, the light of each channel, how it answers to its code, and what channels take
    # from each other.
    #
    #   XYZ = K + P t,   t_c = (r_c(v_c) + d_c(v))^2.4       r: Response, d: Coupling
    class Model
      # More of white, or of a grey from the middle up, than what its channels add up to (or less): they couple.
      ADDS_UP = 0.01
      HALF = 0.5
      ROUNDS = 24
      CHANNELS = (0..2)

      # A patch as it was read, with the standard error of it.
      Sample = Struct.new(:codes, :light, :error)

      # @param samples [Array<Sample>] with light
      # @return [Float] greatest share by which mixtures are off the sum of their channels
      def self.beyond_sum(samples)
        of = samples.to_h { |one| [one.codes, one.light[1]] }
        black = of.fetch(Patches::BLACK, 0.0)
        samples.filter_map do |one|
          drawn = one.codes.select(&:positive?)
          next unless drawn.size > 1 && drawn.uniq.size == 1 && drawn.first.between?(HALF, 1.0)

          alone = CHANNELS.select { |channel| one.codes[channel].positive? }.map { |channel| of[Patches.alone(channel, drawn.first)] }
          sum = alone.sum { |light| light - black } if alone.all?
          ((one.light[1] - black) / sum - 1) if sum&.positive?
        end.max_by(&:abs) || 0.0
      end

      attr_reader :black, :columns

      # @param samples [Array<Sample>] Patches.channels, and mixtures where they couple
      # @param coupled [Boolean]
      # @raise [DeviceError] of a screen whose channels cannot be told apart
      def initialize(samples, coupled:)
        of = samples.to_h { |one| [one.codes, one] }
        @black = of[Patches::BLACK]&.light || [0.0] * 3
        @columns = CHANNELS.map { |channel| less(of.fetch(Patches::PRIMARIES[channel]).light) }
        @apart = Colour::Matrix3.inverse(@columns.transpose)
        @responses = CHANNELS.map { |channel| Response.new(points(samples, channel, greys: !coupled)) }
        @coupling = coupled ? Coupling.fitted(beyond(samples)) : Coupling.none
        freeze
      rescue ZeroDivisionError, KeyError
        raise DeviceError.new("screen", "red, green and blue cannot all be read, or told apart; look whether the probe stands before this screen, and begin again")
      end

      def coupled? = !@coupling.none?

      # @param codes [Numo::DFloat] [3, n]
      # @return [Numo::DFloat] [3, n] XYZ
      def lights(codes)
        amounts = @coupling.beyond(codes).each_with_index.map { |more, channel| Response.light(@responses[channel].seen(codes[channel, true]) + more) }
        Numo::DFloat[*@columns.transpose].dot(Numo::NArray.vstack(amounts)) + Numo::DFloat[*@black.map { |part| [part] }]
      end

      # @param lights [Numo::DFloat] [3, n] XYZ
      # @return [Numo::DFloat] [3, n] light of the channels, 1 at what each shows alone at its white
      def amounts(lights) = Numo::DFloat[*@apart].dot(lights - Numo::DFloat[*@black.map { |part| [part] }])

      # @param amounts [Numo::DFloat] [3, n]
      # @return [Numo::DFloat] [3, n] codes
      def codes(amounts)
        wanted = CHANNELS.map { |channel| Response.seen(amounts[channel, true]) }
        found = solve(wanted, [0.0] * 3)
        return found unless coupled?

        ROUNDS.times { found = solve(wanted, @coupling.beyond(found)) }
        found
      end

      # @return [Array<Array<Float>>] xy of red, green, blue
      def primaries = columns.map { |light| light.first(2).map { |part| part / light.sum } }

      # @return [Array<Float>] XYZ of reference white
      def white = lights(Numo::DFloat[[1.0]] * Numo::DFloat.ones(3, 1)).to_a.flatten

      # @param white [Array<Float>] xy
      # @return [Float] cd/m2, the brightest white of that chromaticity
      def brightest(white)
        whole = amounts(Numo::DFloat[*Colour::Adaptation.xyz(white).map { |part| [part * self.white[1]] }])
        most = coupled? ? amounts(Numo::DFloat[*self.white.map { |part| [part] }]) : Numo::DFloat.ones(3, 1)
        self.white[1] / (whole / most).max
      end

      private

      def solve(wanted, beyond) = Numo::NArray.vstack(CHANNELS.map { |channel| @responses[channel].code(wanted[channel] - beyond[channel]) })

      def less(light) = light.zip(@black).map { |part, black| part - black }

      # What was read of a channel alone, and of greys, each by how sure it is.
      def points(samples, channel, greys:)
        samples.filter_map { |one| estimate(one, channel, greys:) }.group_by(&:first).sort.map do |code, all|
          weight = all.sum { |*, error| 1 / error**2 }
          [code, all.sum { |_, amount, error| amount / error**2 } / weight]
        end
      end

      # @return [Array<Float>, nil] code, amount and its standard error
      def estimate(sample, channel, greys:)
        code = sample.codes[channel]
        return if code.zero?

        if sample.codes == Patches.alone(channel, code) then [code, *projected(sample, channel)]
        elsif greys && sample.codes.uniq.size == 1 then [code, Colour::Matrix3.apply(@apart, less(sample.light))[channel], spread(sample)[channel]]
        end
      end

      # Onto the channel's own light.
      def projected(sample, channel)
        weights = sample.error.map { |error| 1 / error**2 }
        own = columns[channel]
        sum = weights.zip(own).sum { |weight, part| weight * part**2 }
        [weights.zip(own, less(sample.light)).sum { |weight, part, light| weight * part * light } / sum, 1 / Math.sqrt(sum)]
      end

      # @return [Array<Float>] standard errors of the channels' amounts
      def spread(sample) = @apart.map { |row| Math.sqrt(row.zip(sample.error).sum { |part, error| (part * error)**2 }) }

      def beyond(samples)
        codes = Numo::DFloat[*samples.map(&:codes)].transpose
        amounts = amounts(Numo::DFloat[*samples.map(&:light)].transpose)
        CHANNELS.map do |channel|
          seen = Response.seen(amounts[channel, true]) - @responses[channel].seen(codes[channel, true])
          samples.each_with_index.map do |one, index|
            error = spread(one)[channel]
            slope = amounts[channel, index].clamp(error, nil)**(1 / Response::GAMMA - 1) / Response::GAMMA
            [one.codes, seen[index], 1 / ((error * slope)**2 + SURE**2)]
          end
        end
      end
      SURE = 1e-3 # of what is seen; no reading counts for more than that
    end
  end
end
