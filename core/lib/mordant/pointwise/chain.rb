# frozen_string_literal: true

module Mordant
  module Pointwise
    # Operations in signal order, fused: adjacent curves compose, adjacent
    # matrices multiply, a matrix that does nothing goes.
    #
    # There are two ways to run one. {#exact} evaluates every formula as it
    # stands; {#call} and {#from_codes} put a table for each run of curves, with
    # the error that FloatTable and UniformTable state, and compile what can be.
    class Chain
      attr_reader :operations

      # Planes through operations one by one; what an operation leaves behind is
      # given back at once (see Scratch).
      #
      # @param operations [Array<#call>]
      # @param planes [Array<Numo::NArray>] used up
      # @return [Array<Numo::NArray>]
      def self.reduce(operations, planes)
        operations.reduce(planes) do |held, operation|
          result = operation.call(held)
          held.each { |plane| plane.free unless result.any? { |kept| kept.equal?(plane) } }
          result
        end
      end

      def initialize(operations)
        @operations = fuse(operations).freeze
      end

      # @param following [Chain]
      # @return [Chain] this one, then the other
      def +(other) = Chain.new(operations + other.operations)

      def empty? = operations.empty?

      # @param rgb [Numo::DFloat, Numo::SFloat] [3, n]; never written to
      # @return [Numo::NArray] [3, n] of the same element type
      def exact(rgb)
        planes = Chain.reduce(operations, split(rgb, 0...rgb.shape[1]))
        out = rgb.class.new(*rgb.shape).allocate
        3.times { |channel| out[channel, true] = planes[channel] }
        out
      end

      # @param rgb [Numo::SFloat] [3, n]; never written to
      # @return [Numo::SFloat] [3, n], a new array
      # @raise [ShapeError] unless rgb is an SFloat of shape [3, n]
      def call(rgb)
        unless rgb.is_a?(Numo::SFloat) && rgb.ndim == 2 && rgb.shape[0] == 3
          raise ShapeError, "expected an SFloat of shape [3, n], found #{rgb.class} of shape #{rgb.shape}"
        end
        return rgb.dup if empty?

        run(rgb, steps, @quick_tables ||= quick(steps))
      end

      # @param codes [Numo::UInt16] [3, n], full-range code values of 0..65_535
      # @return [Numo::SFloat] [3, n]
      def from_codes(codes)
        run(codes, steps(codes: true), @quick_code_tables ||= quick(steps(codes: true), codes: true))
      end

      # @param codes [Boolean] from 16-bit codes on
      # @return [Array<#call>] its operations through tables
      def steps(codes: false) = codes ? code_tables : tables

      private

      # What is compiled runs over all at once, else tiles are read quickly. Where an entry of a table was missing those are made that a
      # sample of the picture needs, and what is missing still, or where a number is none, is read once more with care.
      def run(source, operations, quick)
        out = Numo::SFloat.new(*source.shape).allocate
        return out if compiled(quick, source, 0...source.shape[1], Pointwise.rows(out))

        sampled = nil
        Pointwise.each_tile(source.shape[1], SHORT) do |range|
          into = Pointwise.rows(out, range)
          planes = quickly(quick, source, range, into)
          planes ||= (sampled ||= Pointwise.sample(operations, source)) && quickly(quick, source, range, into)
          planes ||= Chain.reduce(operations, split(source, range))
          planes.zip(into) { |plane, room| room.store(plane) && plane.free unless plane.equal?(room) }
        end
        out
      end

      # @param into [Array<Numo::SFloat>] see Compiled#call
      # @return [Array<Numo::SFloat>, nil] nil where a NaN came of it, which goes through every operation
      def quickly(operations, source, range, into)
        return compiled(operations, source, range, into) if one?(operations, range)

        planes = Chain.reduce(operations, split(source, range))
        return planes unless planes.any? { |plane| plane.sum.nan? }

        planes.each(&:free)
        nil
      rescue IndexError, Compiled::Unread # the place of a NaN in a table
        nil
      end

      # @return [Array<Numo::SFloat>, nil] as #quickly; nil also where they are not one that is compiled
      def compiled(operations, source, range, into)
        operations.first.call(Pointwise.rows(source, range), into) if one?(operations, range)
      rescue Compiled::Unread
        nil
      end

      def one?(operations, range) = operations.one? && operations.first.is_a?(Compiled) && operations.first.worth?(range.size)

      def quick(operations, codes: false)
        Compiled.joined(operations, codes:).map { |operation| operation.respond_to?(:quick) ? operation.quick : operation }
      end

      def split(rgb, places) = Array.new(3) { |channel| rgb[channel, places].dup }

      def tables
        @tables ||= operations.map(&:tabulate)
      end

      def code_tables
        @code_tables ||= begin
          head, *rest = operations
          head.is_a?(Curve) ? [head.code_table, *rest.map(&:tabulate)] : [CodeTable::PLAIN, *tables]
        end
      end

      def fuse(list)
        list.each_with_object([]) do |operation, fused|
          merged = fused.last&.merge(operation)
          merged ? fused[-1] = merged : fused << operation
          fused.pop if fused.last.is_a?(Matrix) && fused.last.identity?
        end
      end
    end
  end
end
