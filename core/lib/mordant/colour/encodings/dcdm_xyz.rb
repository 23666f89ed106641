# frozen_string_literal: true

module Mordant
  module Colour
    module Encodings
      # X'Y'Z' of a digital cinema distribution master: 48 cd/m2 at white of the 52.37
      # that code 1.0 stands for.
      DcdmXyz = Dcdm.register("dcdm-xyz")
    end
  end
end
