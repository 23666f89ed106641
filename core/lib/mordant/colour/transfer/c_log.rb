# frozen_string_literal: true

module Mordant
  module Colour
    module Transfer
      # Source: C-Log gamma curve white paper v1.2.
      CLog = OddLog.new(scale: 0.45310179, gain: 10.1596, offset: 0.12512248)
    end
  end
end
