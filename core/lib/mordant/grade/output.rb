# frozen_string_literal: true

module Mordant
  module Grade
    # From log codes of the working space to what a View asks for. Screens, scopes
    # and files all go through here.
    class Output
      attr_reader :view, :space

      # @return [Pointwise::Chain] from log codes of the working space to the view
      attr_reader :chain

      # @param view [View]
      # @raise [UnknownIdError, ParameterError]
      def initialize(view:, space: Colour::WorkingSpace.default)
        @view, @space = view, space
        @chain = Pointwise::Chain.new(operations(view.within(space)))
      end

      # One for each view and space, with its tables, kept.
      def self.for(view, space = Colour::WorkingSpace.default)
        @kept ||= {}
        @kept[[view, space.id]] ||= new(view:, space:)
      end

      # @param working [Frame] log codes of the working space
      # @return [Frame] in the view's encoding
      def run(working)
        working.with(@chain.call(working.rgb), encoding: view.encoding)
      end

      private

      def operations(view)
        return Colour::Conversion.new(from: space.log, to: view.encoding, rendering: view.rendering).operations unless view.limit

        light = Colour::Conversion.new(from: space.log, to: "xyz-d65", rendering: view.rendering).operations
        light + Colour::GamutLimit.fetch(view.limit).operations + Colour::Conversion.new(from: "xyz-d65", to: view.encoding).operations
      end
    end
  end
end
