# frozen_string_literal: true

require "fiddle"

module Mordant
  module Pointwise
    # Where in memory numbers lie, so that a kernel reads and writes them there and nothing is copied for it.
    #
    # Source: numo/narray.h, the interface of Numo::NArray for other libraries: nary_get_pointer_for_read, nary_get_pointer_for_write and
    # nary_get_offset.
    module Memory
      NAMES = %w[nary_get_pointer_for_read nary_get_pointer_for_write nary_get_offset].freeze
      VALUE = Fiddle::TYPE_UINTPTR_T

      class << self
        # @return [Boolean] Numo has that interface here
        def here? = !functions.nil?

        # @param held [String, Numo::NArray, Integer] an address already, or numbers that lie together; whoever asks holds them for as long as
        #   their address is used
        # @param written [Boolean] it will be written to
        # @return [Integer]
        # @raise [ShapeError] of numbers that lie apart
        def address(held, written: false)
          case held
          when Integer then held
          when String then Fiddle::Pointer[held].to_i
          else numbers(held, written)
          end
        end

        # @param array [Numo::NArray]
        # @return [Numo::NArray] the same where its numbers lie together, else a copy
        def together(array) = array.contiguous? ? array : array.dup

        private

        def numbers(array, written)
          raise ShapeError, "expected numbers that lie together, found #{array.class} of #{array.shape} that do not" unless array.contiguous?

          read, write, offset = functions
          value = Fiddle.dlwrap(array)
          (written ? write : read).call(value) + offset.call(value)
        end

        # They look at objects of Ruby, and so need its lock.
        def functions
          return @functions if defined?(@functions)

          library = Fiddle.dlopen($LOADED_FEATURES.find { |path| path.end_with?("numo/narray.so") })
          @functions = NAMES.map { |name| Fiddle::Function.new(library[name], [VALUE], VALUE, need_gvl: true) }
        rescue Fiddle::DLError, TypeError # another Numo, which has it elsewhere
          @functions = nil
        end
      end
    end
  end
end
