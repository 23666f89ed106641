# frozen_string_literal: true

module Mordant
  module Calibration
    # How a screen is to be measured and corrected.
    #
    # "target": see Target::KINDS. "white": "d65", or "seen", the white of the patch "seen" as a person has matched it by
    # eye. "size": nodes of the lattice. "range": what the screen is sent, see Colour::SignalRange. "drift": the share by which its
    # white may drift meanwhile.
    class Settings
      KEYS = %w[target white seen size range drift].freeze
      WHITES = %w[d65 seen].freeze
      DEFAULTS = {"target" => "rec709-bt1886", "white" => "d65", "seen" => [1.0, 1.0, 1.0], "size" => 17, "range" => "full", "drift" => 0.005}.freeze
      SEEN = (0.5..1.0) # codes of a white that is matched by eye

      attr_reader :kind, :white, :seen, :size, :range, :drift

      # @param document [Hash]
      # @raise [ParameterError]
      def initialize(document = {})
        Checks.held("settings", document, KEYS)
        all = DEFAULTS.merge(document)
        @kind = Target.kind(all["target"])
        @white = one(all, "white", WHITES)
        @seen = StandIn.three(all["seen"], "settings.seen", SEEN)
        @size = one(all, "size", Correction::SIZES)
        @range = one(all, "range", Colour::SignalRange::ALL)
        @drift = Checks.number(all["drift"], "settings.drift", 0.0001..0.5)
        freeze
      end

      def to_h = {"target" => kind.id, "white" => white, "seen" => seen, "size" => size, "range" => range, "drift" => drift}

      private

      def one(all, name, among) = among.include?(all[name]) ? all[name] : Checks.reject("settings.#{name}", among.join(", "), all[name])
    end
  end
end
