# frozen_string_literal: true

module Mordant
  # Screens, measured, corrected and verified.
  #
  # A Session shows Patches on a screen and reads them with a probe. It judges what it read
  # (Judgement) against a Target, makes a Model of the screen of further readings, and from both
  # a Correction: a lattice for that screen alone. Then it reads the first patches once more,
  # through the lattice.
  #
  # A screen is anything with +show(codes)+, a probe anything with +read+: processes at the other
  # end of a line (Line::Screen, Line::Probe; docs/probe-protocol.md), or the stand-ins
  # themselves (StandIn::Screen, StandIn::Probe). Time is a Clock's.
  #
  # Light is an Array of X, Y, Z in cd/m2 (CIE 1931, 2 degree observer). Codes are an Array of
  # red, green, blue, 0.0 at black and 1.0 at reference white; what a device in legal range
  # is sent is Colour::SignalRange's matter.
  module Calibration
    # A screen or a probe that cannot be worked with: it does not answer, has stopped, or says
    # something that is none of the protocol.
    class DeviceError < Error
      # @return [String] "screen" or "probe"
      attr_reader :device

      def initialize(device, words)
        @device = device
        super("#{device}: #{words}")
      end
    end

    # A probe that could not tell the light of this one patch.
    class Refused < Error
      TOO_DARK = "too dark"
      SATURATED = "saturated"

      # @return [String] TOO_DARK or SATURATED
      attr_reader :reason

      def initialize(reason)
        @reason = reason
        super("probe: #{reason}")
      end
    end
  end
end
