# frozen_string_literal: true

require "socket"

module Mordant
  module Calibration
    # The line protocol of screens and probes: text on a loopback port, a line asked, a line
    # answered. docs/probe-protocol.md is what a device is built by.
    module Line
      VERSION = 1
      PORTS = (7311..7318)
      LONGEST = 1000 # bytes of a line
      NUMBER = /\A-?\d+(\.\d+)?([eE][-+]?\d+)?\z/

      module_function

      # @param address [String] "127.0.0.1:7311"
      # @return [Array(String, Integer)]
      # @raise [ParameterError] of another machine: a device there is reached through a tunnel
      def parse(address, path = "address")
        host, port = address.to_s.match(/\A(.+):(\d{1,5})\z/)&.captures
        good = host && %w[127.0.0.1 localhost [::1]].include?(host) && (1..65_535).cover?(port.to_i)
        good ? [host.delete("[]"), port.to_i] : Checks.reject(path, "an address on this machine, such as 127.0.0.1:#{PORTS.first}", address)
      end

      # @param addresses [Array<String>]
      # @return [Array<Hash>] address, device and name of all that answer
      def found(addresses = PORTS.map { |port| "127.0.0.1:#{port}" })
        addresses.map { |address| Thread.new { Client.about(address) } }.filter_map(&:value)
      end
    end
  end
end
