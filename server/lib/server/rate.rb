# frozen_string_literal: true

module Server
  # Frames a second as people write them.
  module Rate
    RANGE = 1..1000
    # Rates whose usual short form is rounded.
    SHORT = {"23.976" => 24_000, "23.98" => 24_000, "29.97" => 30_000, "47.952" => 48_000, "59.94" => 60_000, "119.88" => 120_000}.freeze

    module_function

    # @param text [String] "25", "30000/1001" or "29.97"
    # @return [Rational]
    # @raise [Mordant::ParameterError]
    def parse(text, path: "rate")
      given = text.to_s.strip
      rate = SHORT.key?(given) ? Rational(SHORT[given], 1001) : Rational(given, exception: false)
      return rate if rate && RANGE.cover?(rate) && rate.denominator <= 1001

      raise Mordant::ParameterError.new(path:, expected: "frames a second, such as 25 or 30000/1001", found: text)
    end
  end
end
