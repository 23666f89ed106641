# frozen_string_literal: true

module Mordant
  module Calibration
    # What a session has found, as far as it has come.
    class Report
      # @param session [Session]
      def initialize(session)
        @session = session
      end

      # @return [Hash] before: when its patches have been read; after: likewise; the rest as far as it is known
      def to_h
        {settings: @session.settings.to_h, white: @session.white_xy, settling: @session.settling&.to_h, drift: @session.drifted, seconds: @session.seconds,
         before: before&.merge(reachable: reachable), after: after&.merge(reachable: reachable), **found, notes:}.compact
      end

      # @return [Hash, nil]
      def before = @before ||= judged("before") { |white| @session.aim(white:) }

      # @return [Hash, nil]
      def after = @after ||= judged("after") { |white| @session.verifies? ? @session.aim(white:) : @session.target }

      # @return [Array<String>] what a person ought to know
      def notes
        unread = [before, after].compact.flat_map { |one| one[:unread] }
        [*reach&.words,
          (format("White drifted by %.1f %% while it was measured; %.1f %% is allowed. Let the screen warm up, and measure it again.", drift * 100, @session.settings.drift * 100) if drift.abs > @session.settings.drift),
          ("The channels couple, by #{format("%.1f", @session.beyond_sum.abs * 100)} % of what they add up to: mixtures were read as well." if @session.complete?("channels") && @session.coupled?),
          ("The probe refused #{unread.size} patches as too dark; they are left out of the figures." if unread.any?)].compact
      end

      private

      def drift = @session.drifted

      # @return [Boolean] whether all is there that a correction is made of
      def modelled? = @session.complete?("channels") && (!@session.coupled? || @session.complete?("mixtures"))

      def judged(phase)
        return unless @session.complete?(phase)

        readings = @session.all(phase)
        white = readings.find { |one| one.codes == Patches::WHITE }
        Judgement.new(yield(white.light ? white.light[1] : @session.settling.white[1]), readings).to_h
      end

      def reach = modelled? ? (@reach ||= Reach.new(primaries: @session.model.primaries, white: @session.target.peak, black: @session.model.black[1], kind: @session.settings.kind)) : nil

      def reachable = reach&.reachable?

      def found
        return {} unless modelled?

        {readings: %w[channels mixtures].sum { |phase| @session.all(phase).size }, reachable:, reach: reach.to_h, primaries: @session.model.primaries, corners: @session.model.primaries.map { |xy| Diagram.uv(xy) }, peak: @session.target.peak,
         additivity: {beyond_sum: @session.beyond_sum, coupled: @session.coupled?, readings: @session.all("mixtures").size}}
      end
    end
  end
end
