# frozen_string_literal: true

module Mordant
  module Pointwise
    # Stands for a plane while operations are recorded: has of Numo::SFloat what formulas of
    # operations use, with the same meaning, and writes down each act. What #bits, #held and
    # #>> return stands for whole numbers of 32 bits, of #< and #> for masks.
    class Recorded
      # @return [Integer] instruction that makes it, in the recording
      attr_reader :place

      # @param recording [Recording]
      # @param place [Integer]
      def initialize(recording, place)
        @recording, @place, @inplace = recording, place, false
      end

      def +(other) = act(:add, other)

      def -(other) = act(:subtract, other)

      def *(other) = act(:multiply, other)

      def /(other) = act(:divide, other)

      # @param low [Float, Recorded, nil]
      # @param high [Float, Recorded, nil]
      # @return [Recorded] NaN stays NaN
      def clip(low, high)
        where = low ? @recording.add(:at_least, place, @recording.place_of(low)) : place
        become(high ? @recording.add(:at_most, where, @recording.place_of(high)) : where)
      end

      def abs = become(@recording.add(:absolute, place))

      # @return [Recorded] square root
      def root = become(@recording.add(:root, place))

      # @return [Recorded] mask of NaN
      def none = made(:none)

      def <(other) = made(:below, @recording.place_of(other))

      def >(other) = made(:above, @recording.place_of(other))

      # @param other [Recorded] a mask
      # @return [Recorded] mask of where either holds
      def |(other) = made(:either, other.place)

      # @param yes [Recorded]
      # @param no [Recorded]
      # @return [Recorded] of a mask the first where it holds, else the second
      def choose(yes, no) = made(:choice, yes.place, no.place)

      # @param last [Integer]
      # @return [Recorded] whole number of 0..last, cut off; 0 of NaN
      def held(last) = made(:held, @recording.place_of(last))

      # @return [Recorded] the float's own bits
      def bits = made(:bits)

      # @param other [Integer]
      # @return [Recorded] whole number without that many last bits, never negative
      def >>(other) = made(:shift, other)

      # @param other [Integer]
      # @return [Recorded] the bits that both have
      def &(other) = made(:mask, other)

      # @param other [Recorded] a whole number
      # @return [Recorded] the bits that one of both has
      def ^(other) = made(:apart, other.place)

      # @param number [Integer]
      # @return [Recorded] the last 32 bits of the whole number's product with it
      def times(number) = made(:times, number)

      # @return [Recorded] whole number of the float cut off, within 0..65,535, as 16 bits; 0 of NaN
      def code = held(65_535).then { |whole| Recorded.new(@recording, @recording.add(:code, whole.place)) }

      # @return [Recorded] bits of the half float it rounds to, as Media::Half has them: 16 bits
      def half = made(:half)

      # @return [Recorded] of a whole number the last eight bits
      def low = made(:low)

      # @param other [Recorded] eight bits, as this
      # @return [Recorded] the difference, round at 256, from 128 on
      def from(other) = made(:from, other.place)

      # @return [Recorded] of a mask 1 where it holds, else 0: 16 bits
      def flag = made(:flag)

      # @param spare [Integer] a place of the table where nothing of this comes, for what has been counted already
      # @return [Recorded] of a whole number what counts it: in a table of 32 bits, one more at its place
      def counted(spare) = made(:count, spare)

      # @param value [Recorded] floats
      # @param spare [Integer]
      # @return [Recorded] of a whole number what sums values by it: in a table of doubles, more by the value at its place
      def summed(value, spare) = made(:sum, spare, value.place)

      # @return [Recorded] a whole number as a float
      def float = made(:float)

      # @param table [#memory] pairs of floats
      # @return [Array<Recorded>] first and second of the pair at this whole number
      def pair_in(table) = %i[first second].map { |one| made(one, @recording.number_of(table)) }

      # @param table [#memory] floats
      # @return [Recorded] the one at this whole number
      def found_in(table) = made(:single, @recording.number_of(table))

      def inplace
        @inplace = true
        self
      end

      def out_of_place!
        @inplace = false
        self
      end

      def dup = Recorded.new(@recording, place)

      def free = nil

      # @return [Recorded] a number everywhere
      def same(number) = Recorded.new(@recording, @recording.place_of(number))

      # A number before an operator: 1.0 - plane.
      def coerce(number) = [same(number), self]

      private

      def act(name, other) = become(@recording.add(name, place, @recording.place_of(other)))

      # As Numo: another array, or while it is in place the same one with other values.
      def become(where)
        return Recorded.new(@recording, where) unless @inplace

        @place = where
        self
      end

      def made(name, *operands) = Recorded.new(@recording, @recording.add(name, place, *operands))
    end
  end
end
