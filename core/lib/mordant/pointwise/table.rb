# frozen_string_literal: true

module Mordant
  module Pointwise
    # Reading interpolated tables.
    module Table
      module_function

      # values[index] + rises[index] * rest. What an index gathers is a slow lazy
      # view until it is copied, so both are.
      #
      # @param values [Numo::SFloat]
      # @param rises [Numo::SFloat]
      # @param index [Numo::Int32]
      # @param rest [Numo::SFloat] overwritten
      # @return [Numo::SFloat] rest
      def interpolate(values, rises, index, rest)
        [[:*, rises], [:+, values]].each do |operation, table|
          found = table[index].dup
          rest.inplace.public_send(operation, found)
          found.free
        end
        rest.out_of_place!
      end
    end
  end
end
