# frozen_string_literal: true

module Mordant
  module Scopes
    # The pixels that make up a part of an instrument.
    #
    # As a document: {"instrument": "waveform", "channel", "from": [column, level], "to"}, all
    # shares of 0..1; {"instrument": "vectorscope", "from": [cb, cr], "to"}; {"instrument":
    # "histogram", "channel", "from": level, "to"}; {"instrument": "solid", "cell": [red,
    # green, blue], "reach"}, codes. Ends in either order.
    class Selection
      CHANNELS = %w[luma red green blue].freeze
      INSTRUMENTS = %w[waveform vectorscope histogram solid].freeze
      KEYS = %w[instrument channel from to cell reach].freeze

      # @param document [Hash]
      # @raise [ParameterError]
      def initialize(document)
        Checks.held("light", document, KEYS)
        @document = document
        Checks.choice(document["instrument"], "light.instrument", INSTRUMENTS)
      end

      # @param signal [Signal] of a picture, or of a part of one
      # @param left [Integer] pixels of the picture to the left of the part
      # @param whole [Integer] width of the picture
      # @return [Numo::SFloat] [n], 0 or 1
      # @raise [ParameterError]
      def weights(signal, left: 0, whole: signal.width)
        columns = (Numo::SFloat.new(signal.width).seq + (left + 0.5)) / whole
        Numo::SFloat.cast(send(:"in_#{@document["instrument"]}", signal, columns))
      end

      private

      def in_waveform(signal, columns)
        (left, low), (right, high) = pair("from", 2).zip(pair("to", 2)).map(&:minmax).transpose
        across = Numo::SFloat.cast(columns.ge(left) & columns.le(right)).reshape(1, signal.width)
        within = Numo::SFloat.cast(between(signal.public_send(channel).clip(0.0, 1.0), low, high)).reshape(signal.height, signal.width)
        (within * across).reshape(signal.size)
      end

      def in_histogram(signal, _columns) = between(signal.public_send(channel).clip(0.0, 1.0), *[pair("from", 1), pair("to", 1)].flatten.minmax)

      def in_vectorscope(signal, _columns)
        (left, low), (right, high) = pair("from", 2).zip(pair("to", 2)).map(&:minmax).transpose
        between(signal.cb, left, right) & between(signal.cr, low, high)
      end

      def in_solid(signal, _columns)
        reach = pair("reach", 1).first
        %i[red green blue].zip(pair("cell", 3)).map { |channel, code| between(signal.public_send(channel).clip(0.0, 1.0), code - reach, code + reach) }.reduce(:&)
      end

      def between(values, low, high) = values.ge(low) & values.le(high)

      def channel = Checks.choice(@document["channel"], "light.channel", CHANNELS)

      def pair(key, count)
        value = Array(@document[key])
        Checks.reject("light.#{key}", "#{count} #{(count == 1) ? "number" : "numbers"}", @document[key]) unless value.size == count
        value.map { |one| Checks.number(one, "light.#{key}", LIMITS) }
      end
      LIMITS = (-1e6..1e6)
      private_constant :LIMITS
    end
  end
end
