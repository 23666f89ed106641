# frozen_string_literal: true

# Numbers computed by an independent implementation; fixtures/reference/README.md
# says what they hold and how closely they are to be met.
module Reference
  FOLDER = File.expand_path("../fixtures/reference", __dir__)

  module_function

  # @return [Array<Hash>] entries of a file
  def entries(name) = JSON.parse(File.read(File.join(FOLDER, "#{name}.json")))

  # @return [Hash] {from:, to:, rendering:}; nil where the id names something else
  def ends(id)
    match = /\A(.+?)_to_([^_]+)(?:_(.+))?\z/.match(id)
    match && {from: match[1], to: match[2], rendering: match[3]}
  end

  # Entries of a file that are conversions we have.
  def conversions(name)
    entries(name).filter_map do |entry|
      found = ends(entry["id"]) or next
      known = [found[:from], found[:to]].all? { |id| Mordant::Colour::Encoding.known?(id) }
      [entry, Mordant::Colour::Conversion.new(**found)] if known
    end
  end
end

# Within either bound: absolute, or relative to the largest component of the row.
RSpec::Matchers.define :match_rows do |expected, bounds|
  match do |actual|
    @worst = actual.zip(expected).each_with_index.filter_map do |(found, wanted), index|
      largest = wanted.map(&:abs).max
      off = found.zip(wanted).map { |a, b| (a - b).abs }.max
      [off, index, found, wanted] unless off <= bounds.fetch(:absolute) || off <= bounds.fetch(:row, 0.0) * largest
    end.max_by(&:first)
    actual.size == expected.size && @worst.nil?
  end

  failure_message do
    @worst ? "row #{@worst[1]} is #{@worst[2]}, expected #{@worst[3]} (off by #{@worst[0]})" : "another number of rows"
  end
end
