# frozen_string_literal: true

module Mordant
  module Calibration
    # A patch, shown and read.
    #
    # codes: of the patch; sent: what the screen was sent; light: mean XYZ of its takes, none where the probe refused it
    # with a reason; error: standard error of each; at: seconds since the session began.
    Reading = Struct.new(:phase, :codes, :sent, :light, :error, :takes, :refused, :at, keyword_init: true) do
      # @param document [Hash] as #to_h, of JSON
      def self.of(document) = new(**document.transform_keys(&:to_sym))

      def sample = Model::Sample.new(codes, light, error)

      # @param share [Float] of its light that is left by drift
      # @return [Reading] as it would have been without
      def without(share) = light ? self.class.new(**to_h, light: light.map { |part| part / share }) : self
    end
  end
end
