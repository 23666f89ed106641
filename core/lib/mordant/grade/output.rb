# frozen_string_literal: true

module Mordant
  module Grade
    # From log codes of the working space to what a View asks for. Screens,
    # scopes and files all go through here.
    class Output
      attr_reader :view

      # @return [Pointwise::Chain] from log codes of the working space to the view
      attr_reader :chain

      # @param view [View]
      # @raise [UnknownIdError, ParameterError]
      def initialize(view:, space: Colour::WorkingSpace.default)
        @view = view
        @chain = Colour::Conversion.new(from: space.log, to: view.encoding, rendering: view.rendering).chain
      end

      # One for each view, with its tables, kept.
      def self.for(view)
        @kept ||= {}
        @kept[view] ||= new(view:)
      end

      # @param working [Frame] log codes of the working space
      # @return [Frame] in the view's encoding
      def run(working)
        working.with(@chain.call(working.rgb), encoding: view.encoding)
      end
    end
  end
end
