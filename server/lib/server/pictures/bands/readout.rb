# frozen_string_literal: true

module Server
  module Pictures
    module Bands
      # What is made of a band where nothing has to look at the whole picture: a band of a file for the screen, and what instruments
      # count in it.
      module Readout
        module_function

        # @return [Array(Measuring::Counted, Mordant::Media::PlainPng::Band)]
        def make(desk, wish, body, window)
          working, measured, drawn = desk.part(wish, window)
          [Measuring.new(wish, body, extent: window).counted(working, measured), Mordant::Media::PlainPng.band(drawn)]
        end

        # @param bands [Array<Array(Measuring::Counted, Mordant::Media::PlainPng::Band)>] from above
        # @return [Array(Measuring::Counted, String)] of the whole picture
        def join(bands) = bands.transpose.then { |counted, parts| [counted.compact.reduce(:+), Mordant::Media::PlainPng.file(parts)] }
      end
    end
  end
end
