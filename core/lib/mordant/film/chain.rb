# frozen_string_literal: true

module Mordant
  module Film
    # Light through a negative, a printer and a print, as a departure from the neutral chain; see Departure. Immutable.
    #
    # For the light of a channel c, relative to mid grey, in this order:
    #
    #   light      E_c = 2^(exposure - push) 10^(0.025 w_c) e_c     w: warmth, +/0/-, half of it each
    #   flash      F_c = (E_c + f) / (1 + f)                       mid grey stays
    #   layers     L   = S F                                        S: sensitivities, rows sum to 1
    #   negative   d_c = fog + D_c(log10 L_c)                       D: Characteristic, developed longer by push, its toe, straight
    #                                                               line, shoulder and speed moved
    #   coupling   d'  = d + k K d                                  K: inhibition, rows sum to 0
    #   dyes       a   = A d'                                       A: absorptions, rows sum to 1
    #   printer    p_c = P_c - a_c + 0.025 (points + points_c) + log10(2) print_exposure
    #   print      q_c = Q_c(p_c)                                   Q: Characteristic, its limits relaxed
    #   dyes       q'  = B q                                        B: absorptions of the print
    #   silver     q'' = q' + r mean(q')
    #   light      h_c = N^-1(q''_c)
    #
    # P is what prints mid grey to the density M that N has there, whatever the materials, the development, the curve and the
    # silver: only exposure, printer lights and print exposure move it. What is pushed was exposed so much less. A negative that is
    # none is a straight line, a print that is none what makes N of it.
    #
    # In a scene-referred space e is the scene's light and h the logarithm of what becomes of it; in a display-referred one
    # the display's light is taken for a print's first: log10 e = N^-1(-log10 T), and T = 10^-q'' in the end.
    #
    # Sources: C. E. K. Mees and T. H. James, The theory of the photographic process, on characteristic curves, inhibition
    # between layers and printing; printer lights of 0.025 log exposure a point are those of additive printers.
    class Chain
      LEAST = 1e-6 # light from mid grey below which all is alike
      FOG = 0.02 # density, a stop of push
      SILVER = 0.6 # of the mean density, all of it retained
      HALF = 0.5 # print densities lie on a table's axis by half

      # @param negative [Material, nil]
      # @param print [Material, nil]
      # @param settings [Hash{Symbol => Float, Array<Float>}] exposure, warmth, flash, push, coupling, speed, toe, slope,
      #   shoulder, points (all, red, green, blue), print_exposure, limits, silver
      def initialize(negative:, print:, **settings)
        @negative, @print, @settings = negative, print, settings
        @curves = shaped
        @printer = lights
        freeze
      end

      # @param space [Colour::WorkingSpace]
      # @return [Array] Pointwise operations from log codes of the space to its log codes
      def operations(space)
        entering = Colour::Encoding.fetch(space.log)
        opened = space.scene? ? Colour::Conversion.new(from: space.log, to: space.linear).operations : [Pointwise::Curve.new(shown(entering), domain: Pointwise::Curve::LOG)]
        [*opened, *developed(space), Pointwise::Curve.new(space.scene? ? leaving(space) : displayed(entering), domain: Pointwise::Curve::LOG)]
      end

      # A part of the way, of a display-referred space: between log exposures that its codes stand for.
      #
      # @param share [Float]
      # @return [Array] as #operations
      def partly(space, share)
        entering = Colour::Encoding.fetch(space.log)
        fifths = ->(function) { Pointwise::Curve.new(function, domain: Pointwise::Curve::LOG) }
        within = [fifths[->(h) { 10.0**(h / FIFTH) }], *developed(space), fifths[->(half) { Departure.exposure(half / HALF) * FIFTH }]]
        [fifths[->(codes) { Numo::NMath.log10(shown(entering).call(codes)) * FIFTH }], Pointwise::Blend.new(Pointwise::Chain.new(within), share), fifths[->(h) { displayed(entering).call(Departure.density(h / FIFTH) * HALF) }]]
      end
      FIFTH = 0.2 # log exposures lie on a table's axis by a fifth

      # @param exposure [Numo::DFloat] log exposures of a layer, from mid grey
      # @param layer [Integer]
      # @return [Numo::DFloat] density above base
      def negative_density(exposure, layer) = @curves[layer].call(exposure) + fog

      # @param exposure [Numo::DFloat] log exposures of the print, from what prints mid grey without lights
      # @param layer [Integer]
      # @return [Numo::DFloat] density above base
      def print_density(exposure, layer)
        return Departure.density(exposure * (-1.0 / Departure::SLOPE)) unless @print

        @print.layers[layer].relaxed(@settings.fetch(:limits) * -1.0 + 1.0).call(exposure)
      end

      # What becomes of the light of greys on its way, for a tone reproduction diagram.
      #
      # @param exposure [Numo::DFloat] log exposures of a scene, from mid grey
      # @return [Hash{Symbol => Array<Numo::DFloat>}] red, green and blue each: densities of the negative's layers, of its dyes, of the print,
      #   and the log exposure that it stands for
      def way(exposure)
        flash = @settings.fetch(:flash)
        light = gains.map { |gain| (10**exposure * gain + flash) / (1 + flash) }
        negative = through(@negative ? @negative.sensitivities : Pointwise::Matrix::IDENTITY, light).each_with_index.map { |one, layer| negative_density(Numo::NMath.log10(Numo::DFloat.maximum(one, LEAST)), layer) }
        seen = through(dyes, negative)
        print = through(printed, seen.each_with_index.map { |density, channel| print_density(density * -1.0 + printer[channel], channel) })
        {negative:, dyes: seen, print:, light: print.map { |density| Departure.exposure(density) }}
      end

      # Where the curve of the middle layer can be taken hold of, for a diagram.
      #
      # @return [Hash{Symbol => Array(Float, Float)}] log exposure of the scene from mid grey, and density: of the toe and the shoulder
      #   where the negative has such, and of a place on its straight line
      def holds
        curve, flash = @curves[1], @settings.fetch(:flash)
        ends = @negative ? {toe: curve.toe, shoulder: curve.shoulder} : {}
        line = @negative ? curve.toe + (curve.shoulder - curve.toe) * LINE : LINE
        {**ends, line:}.transform_values do |exposure|
          light = [10**exposure * (1 + flash) - flash, LEAST].max
          [Math.log10(light / gains[1]), negative_density(Numo::DFloat[exposure], 1)[0]]
        end
      end
      LINE = 0.7 # of the way from toe to shoulder

      # @return [Array<Float>] what stands in the printer for each channel, in log exposure
      attr_reader :printer

      private

      # From light, of mid grey or a display's as the space has it, to print densities by half.
      def developed(space)
        [Pointwise::Matrix.new(exposed(space)), Pointwise::Curve.new(negatives), Pointwise::Matrix.new(dyes), Pointwise::Curve.new(prints, domain: Pointwise::Curve::LOG), Pointwise::Matrix.new(printed)]
      end

      # The straight line of a negative that is none.
      Straight = Struct.new(:slope, :speed) do
        def call(exposure) = (exposure + speed) * slope

        def developed(stops) = Straight.new(slope * (1 + Characteristic::STEEPER * stops), speed + Characteristic::FASTER * stops)

        def shaped(steeper:, faster:, **) = Straight.new(slope * steeper, speed + faster)
      end
      private_constant :Straight

      def usual = @negative ? @negative.layers : [Straight.new(Departure::SLOPE, 0.0)] * 3

      # The layers' curves as they are developed and moved.
      def shaped
        toe, shoulder, faster = %i[toe shoulder speed].map { |name| STOP * @settings.fetch(name) }
        usual.map { |curve| curve.developed(@settings.fetch(:push)).shaped(steeper: @settings.fetch(:slope), toe:, shoulder:, faster:) }
      end

      def fog = [@settings.fetch(:push), 0.0].max * FOG

      def coupled
        inhibition = @negative ? @negative.inhibition : [[0.0] * 3] * 3
        inhibition.map.with_index { |row, i| row.map.with_index { |value, j| value * @settings.fetch(:coupling) + ((i == j) ? 1.0 : 0.0) } }
      end

      def dyes = Colour::Matrix3.multiply(@negative ? @negative.absorptions : Pointwise::Matrix::IDENTITY, coupled)

      # Mid grey as usual goes to the density that N has there.
      def lights
        middle = Array.new(3) { |layer| negative_density(Numo::DFloat[-STOP * @settings.fetch(:push)], layer)[0] }
        points = @settings.fetch(:points)
        dyes.each_with_index.map do |row, channel|
          needed(channel) + row.zip(middle).sum { |share, density| share * density } + POINT * (points[0] + points[channel + 1]) + STOP * @settings.fetch(:print_exposure)
        end
      end

      # Log exposure of the print that makes the middle density, halved towards.
      def needed(channel)
        target = Departure::MIDDLE / (1 + @settings.fetch(:silver) * SILVER)
        low, high = -10.0, 10.0
        60.times do
          middle = (low + high) / 2
          (print_density(Numo::DFloat[middle], channel)[0] > target) ? high = middle : low = middle
        end
        (low + high) / 2
      end

      # @return [Array<Float>] what light is multiplied by, by exposure, push and balance
      def gains
        warmth = @settings.fetch(:warmth)
        [warmth / 2, 0.0, -warmth / 2].map { |points| 2**(@settings.fetch(:exposure) - @settings.fetch(:push)) * 10**(POINT * points) }
      end

      def exposed(space)
        grey = space.scene? ? Colour::WorkingSpace::MID_GREY : 1.0
        rows = @negative ? @negative.sensitivities : Pointwise::Matrix::IDENTITY
        rows.map { |row| row.zip(gains).map { |share, gain| share * gain / grey / (1 + @settings.fetch(:flash)) } }
      end

      def through(rows, planes) = rows.map { |row| row.zip(planes).map { |share, plane| plane * share }.reduce(:+) }

      def negatives
        offset = @settings.fetch(:flash) / (1 + @settings.fetch(:flash))
        by_layer { |layer| ->(light) { negative_density(Numo::NMath.log10(Numo::DFloat.maximum(light + offset, LEAST)), layer) } }
      end

      def prints = by_layer { |channel| ->(density) { print_density(density * -1.0 + printer[channel], channel) * HALF } }

      def printed
        share = @settings.fetch(:silver) * SILVER / 3
        silver = Array.new(3) { |i| Array.new(3) { |j| share + ((i == j) ? 1.0 : 0.0) } }
        Colour::Matrix3.multiply(silver, @print ? @print.absorptions : Pointwise::Matrix::IDENTITY)
      end

      def leaving(space)
        ->(half) { space.transfer.encode(Numo::NMath.exp(Departure.exposure(half / HALF) * Math.log(10)) * Colour::WorkingSpace::MID_GREY) }
      end

      # A display's light as a scene's, and back.
      def shown(encoding)
        ->(codes) { Numo::NMath.exp(Departure.exposure(Numo::NMath.log10(Numo::DFloat.maximum(encoding.transfer.decode(codes), LEAST)) * -1.0) * Math.log(10)) }
      end

      def displayed(encoding) = ->(half) { encoding.transfer.encode(Numo::NMath.exp(half * (-Math.log(10) / HALF))) }

      # One function for layers that are alike, so that it is tabulated once.
      def by_layer
        alike = @negative.nil? && @print.nil? && printer.uniq.one?
        first = yield 0
        alike ? [first] * 3 : [first, yield(1), yield(2)]
      end
    end
  end
end
