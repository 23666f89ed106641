# frozen_string_literal: true

module Mordant
  module Calibration
    # Measures a screen, corrects it, and measures it again.
    #
    # All it has found stands in its journal, a document of JSON: what is there is not read once more, so that a
    # session goes on where it was left, whatever ended it.
    class Session
      PHASES = %w[settling white before channels mixtures after].freeze
      DRIFT = "drift" # white, read now and then
      EVERY = 24 # patches

      attr_reader :settings, :journal

      # @param screen [#show]
      # @param probe [#read]
      # @param settings [Settings]
      # @param journal [Hash] of an earlier run, or empty; written to
      # @param loaded [Lut::Lattice, nil] what the screen is corrected by already, in the range it is sent: that is verified, and no more
      def initialize(screen:, probe:, settings:, clock: Clock.new, journal: {}, loaded: nil)
        @screen, @probe, @settings, @clock, @journal, @loaded = screen, probe, settings, clock, journal, loaded
        @journal["readings"] ||= []
        @began = clock.now - (@journal["readings"].last&.fetch("at") || 0.0)
      end

      # @yield before a patch is shown, and after it has been read; what it raises ends the session, and nothing is lost
      # @yieldparam phase [String] of PHASES
      # @yieldparam codes [Array<Float>, nil] of the patch that comes; nil: one has been read
      # @yieldparam sent [Array<Float>, nil] the same through what corrects the screen; see Colour::SignalRange
      # @return [Report]
      # @raise [DeviceError]
      def run(&watch)
        @watch = watch
        settle
        white if settings.white == "seen"
        verifies? ? drift : measure
        read("after", Patches::ALL_JUDGED, through: lattice)
        drift
        report
      end

      # @return [Boolean] it corrects nothing
      def verifies? = !@loaded.nil?

      # @return [Integer] patches it takes, as far as is known now
      def count
        return sizes["after"] if verifies?

        mixtures = complete?("channels") && coupled?
        sizes.except("white", *("mixtures" unless mixtures)).values.sum
      end

      # @return [Boolean] whether all patches of a phase have been read
      def complete?(phase) = rows(phase).size == sizes.fetch(phase)

      # @return [Integer] of those, how many have been read
      def done = sizes.except("white").keys.sum { |phase| rows(phase).size }

      # @return [Report]
      def report = Report.new(self)

      # @return [Settling, nil]
      def settling = @settling ||= @journal["settling"]&.then { |document| Settling.of(document) }

      # @return [Array<Reading>] of a phase, in order
      def all(phase) = rows(phase).map { |document| Reading.of(document) }

      # @return [Array<Float>] xy that white is to have
      def white_xy = @journal["white"] || settings.kind.primaries.white

      # @return [Float] by which mixtures are off the sum of their channels
      def beyond_sum = @beyond_sum ||= Model.beyond_sum(samples("channels"))

      def coupled? = beyond_sum.abs > Model::ADDS_UP

      # @return [Model]
      def model = @model ||= Model.new(samples("channels") + (coupled? ? samples("mixtures", "before") : []), coupled: coupled?)

      # @return [Target] as the screen is corrected for
      def target = @target ||= aim(white: model.brightest(white_xy), black: model.black[1])

      # @param white [Float] cd/m2
      # @param black [Float] cd/m2; left out: as it was read at rest
      # @return [Target]
      def aim(white:, black: settling.black&.[](1) || 0.0) = Target.new(settings.kind, white: white_xy, peak: white, black:)

      # @return [Correction]
      def correction = @correction ||= Correction.new(model, target, size: settings.size, most:)

      # @return [Lut::Lattice] in the range the screen is sent
      def lattice = @loaded || @lattice ||= correction.lattice(settings.range)

      # @return [Float] share by which white has changed, signed
      def drifted = Trend.new(all(DRIFT)).change

      # @return [Float] seconds it took
      def seconds = @journal["readings"].last&.fetch("at") || 0.0

      private

      def most = Colour::SignalRange.decode(1.0, settings.range)

      def rows(phase) = @journal["readings"].select { |one| one["phase"] == phase }

      def sizes = @sizes ||= {"white" => 1, "before" => Patches::ALL_JUDGED.size, "channels" => Patches.channels(most).size, "mixtures" => Patches.mixtures.size, "after" => Patches::ALL_JUDGED.size}

      def measure
        read("before", Patches::ALL_JUDGED)
        read("channels", Patches.channels(most))
        read("mixtures", Patches.mixtures) if coupled?
      end

      def tell(phase, codes = nil, sent = nil) = @watch&.call(phase, codes, sent)

      def settle
        return if settling

        tell("settling", Patches::WHITE, sent(Patches::WHITE))
        @journal["settling"] = Settling.measured(@screen, @probe, @clock, sent: [Patches::BLACK, Patches::WHITE].map { |codes| sent(codes) }).to_h.transform_keys(&:to_s)
        @light = settling.white[1]
        tell("settling")
      end

      # The white a person has matched by eye, as the probe sees it.
      def white
        return if @journal["white"]

        light = read("white", [settings.seen]).first.light or raise DeviceError.new("probe", "it cannot read the white; #{Refused::TOO_DARK}")
        @journal["white"] = light.first(2).map { |part| part / light.sum }
      end

      def read(phase, patches, through: nil)
        patches.each_with_index.drop(rows(phase).size).each do |codes, index|
          drift if (index % EVERY).zero?
          take(phase, codes, through)
        end
        all(phase)
      end

      # White once more, unless it has just been read.
      def drift
        take(DRIFT, Patches::WHITE) unless @journal["readings"].last&.fetch("phase") == DRIFT
      end

      def take(phase, codes, through = nil)
        send = sent(codes)
        send = through.call(send.map { |one| Numo::DFloat[one] }).map { |one| one[0] } if through
        tell(phase, codes, send)
        expected = aim(white: settling.white[1]).light(codes)[1]
        @screen.show(send)
        @clock.wait(settling.wait(@light || settling.white[1], expected))
        keep(phase, codes, send, *takes((codes == Patches::BLACK) ? Settling::MOST_TAKES : settling.takes(expected)))
        tell(phase)
      end

      # @return [Array(Array<Float>, Integer, String)] mean light, readings, and the reason where there are none
      def takes(count)
        lights = Array.new(count) { @probe.read }
        [lights.transpose.map { |parts| parts.sum / count }, count, nil]
      rescue Refused => e
        raise DeviceError.new("probe", "this patch is too bright for it; turn the screen down, or take another probe") if e.reason == Refused::SATURATED

        [nil, 1, e.reason]
      end

      def keep(phase, codes, sent, light, takes, refused)
        @light = light ? light[1] : 0.0
        @journal["readings"] << Reading.new(phase:, codes:, sent:, light:, error: light && settling.error(light, takes), takes:, refused:, at: @clock.now - @began).to_h.transform_keys(&:to_s)
      end

      def sent(codes) = codes.map { |code| Colour::SignalRange.encode(code, settings.range) }

      # What was read, without what the screen drifted by.
      def samples(*phases)
        trend = Trend.new(all(DRIFT))
        phases.flat_map { |phase| all(phase) }.select(&:light).map { |one| one.without(trend.share(one.at)).sample }
      end
    end
  end
end
