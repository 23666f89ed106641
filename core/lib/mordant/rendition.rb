# frozen_string_literal: true

module Mordant
  # An HDR picture brought to smaller targets: what that is measured and computed by.
  module Rendition
    # @param document [Hash] of a grade, or of corrections
    # @return [Grade::Recipe, Corrections] by what steps it has
    # @raise [ParameterError]
    def self.recipe(document)
      kinds = Steps.corrections.map(&:id)
      steps = document["steps"] if document.is_a?(Hash)
      correct = steps.is_a?(Array) && steps.any? { |step| step.is_a?(Hash) && kinds.include?(step["kind"]) }
      (correct ? Corrections : Grade::Recipe).new(document)
    end

    # Parts of it by themselves, to look at or to check: how many numbers a row has, and a function of the request and of rows.
    PARTS = {
      "eetf" => [1, ->(request, rows) { ToneCurve.read(request).call(rows) }],
      "ictcp-pq" => [3, ->(_, rows) { ICtCp.of(rows) }],
      "delta-e-itp" => [6, ->(_, rows) { ICtCp.difference(ICtCp.of(rows[0..2, true]), ICtCp.of(rows[3..5, true])).reshape(1, rows.shape[1]) }]
    }.freeze
  end
end
