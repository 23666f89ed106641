# frozen_string_literal: true

require "io/wait"

module Mordant
  module Media
    # The standard output of a child process, read with a limit to how long it may say nothing.
    # What whoever reads does between two reads does not count.
    class Outflow
      CHUNK = 65_536 # bytes, a pipe's

      # Raised of a program that said nothing for longer than it may.
      class Silence < StandardError; end

      # @param io [IO] binary
      # @param limit [Numeric] seconds
      def initialize(io, limit)
        @io, @limit = io, limit
      end

      # @param bytes [Integer, nil] nil: all there is
      # @return [String, nil] binary, shorter at the end only; nil past the end if bytes are asked for
      # @raise [Silence]
      def read(bytes = nil)
        data = String.new(capacity: bytes || CHUNK)
        while bytes.nil? || data.bytesize < bytes
          chunk = some(bytes ? bytes - data.bytesize : CHUNK) or break
          data << chunk
        end
        (bytes && data.empty?) ? nil : data
      end

      # @return [Enumerator<String>] lines as they are asked for
      def lines = to_enum(:each_line)

      # @yieldparam line [String]
      # @raise [Silence]
      def each_line
        rest = "".b
        while (chunk = some(CHUNK))
          *lines, rest = (rest + chunk).split("\n", -1)
          lines.each { |line| yield "#{line}\n" }
        end
        yield rest unless rest.empty?
      end

      private

      # @return [String, nil] what has come, at least a byte; nil at the end
      def some(bytes)
        raise Silence unless @io.wait_readable(@limit)

        @io.readpartial([bytes, CHUNK].min)
      rescue EOFError
        nil
      end
    end
  end
end
