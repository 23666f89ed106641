# frozen_string_literal: true

module Mordant
  module Calibration
    module Line
      # What a probe sees of a screen's stand-in: it looks anew each time, so that the screen may be started again.
      class Sight
        # @param address [String]
        # @raise [ParameterError]
        def initialize(address)
          Line.parse(address)
          @address = address
        end

        # @param seconds [Float]
        # @return [Array<Float>] mean XYZ
        # @raise [DeviceError]
        def light(seconds)
          screen = Screen.new(@address)
          screen.light(seconds)
        ensure
          screen&.close
        end
      end
    end
  end
end
