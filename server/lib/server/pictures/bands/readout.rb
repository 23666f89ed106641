# frozen_string_literal: true

module Server
  module Pictures
    module Bands
      # What is made of a band where nothing has to look at the whole picture: its codes for the screen, and what instruments
      # count in it.
      module Readout
        BITS = 8

        module_function

        # @return [Array(Measuring::Counted, String)] and interleaved codes
        def make(desk, wish, body, window)
          working, measured, drawn = desk.part(wish, window)
          [Measuring.new(wish, body, extent: window).counted(working, measured), Mordant::Media::Integers.interleave(drawn, BITS).to_binary]
        end

        # @param bands [Array<Array(Measuring::Counted, String)>] from above
        # @return [Array(Measuring::Counted, String)] of the whole picture
        def join(bands) = bands.transpose.then { |counted, codes| [counted.compact.reduce(:+), codes.join] }
      end
    end
  end
end
