# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # Parameters given for all channels, or for R, G and B.
      module Channels
        NAMES = %w[R G B].freeze

        module_function

        # @param elements [Array<Markup>] with or without a channel
        # @yieldparam markup [Markup]
        # @return [Array] what the block made for red, green, blue
        # @raise [FormatError]
        def read(parent, elements)
          named = elements.to_h { |one| [one["channel"], yield(one)] }
          odd = elements.find { |one| one["channel"] && !NAMES.include?(one["channel"]) }
          odd&.fault("channel R, G or B", odd["channel"])
          return [named[nil]] * 3 if named.keys == [nil]

          missing = NAMES.find { |name| !named.key?(name) && !named.key?(nil) }
          parent.fault("parameters of channel #{missing}", named.keys.compact.join(" ")) if missing
          NAMES.map { |name| named.fetch(name) { named[nil] } }
        end

        # @return [Array<#call>] the same function where channels have the same values
        def functions(channels)
          made = channels.uniq.to_h { |values| [values, yield(*values)] }
          channels.map { |values| made.fetch(values) }
        end

        # @yieldparam values and attributes of each element needed
        def write(channels)
          return yield(channels.first, {}) if channels.uniq.one?

          NAMES.zip(channels).each { |name, values| yield(values, {"channel" => name}) }
        end
      end
    end
  end
end
