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
        @kept.shift while @kept.size > KEPT
        @kept[[view, space.id, view.stamps]] ||= (view.aim ? Rendition::Output : self).new(view:, space:)
      end
      KEPT = 64

      # @return [Boolean] a table can stand for it
      def pointwise? = true

      # @return [Boolean] a screen may draw it by a table while a hand moves or it plays
      def drawable? = pointwise?

      # @param _raster [#width, #height] of the whole picture
      # @return [Integer] pixels around one that it depends on
      def margin(_raster) = 0

      # @param working [Frame] log codes of the working space
      # @return [Frame] in the view's encoding
      def run(working)
        working.shown { |frame| frame.through(@chain, encoding: view.encoding) }
      end

      private

      def operations(view)
        return light_to(view.encoding, view) unless view.limit

        light_to("xyz-d65", view) + Colour::GamutLimit.fetch(view.limit).operations + convert("xyz-d65", view.encoding)
      end

      def light_to(encoding, view)
        return convert(space.log, encoding, view.rendering) unless view.lut

        table = convert(space.log, view.expects || space.log) + Lut::Library.fetch(view.lut).operations
        (view.strength ? weakened(table, view) : table) + convert(view.encoding, encoding)
      end

      # In the codes of the view, where a print is mixed with what it is printed over.
      def weakened(table, view)
        rendering = (View::REST if space.scene? && !Colour.encoding(view.encoding).scene?)
        [Pointwise::Blend.new(Pointwise::Chain.new(table), view.strength, base: Pointwise::Chain.new(convert(space.log, view.encoding, rendering)))]
      end

      def convert(from, to, rendering = nil) = Colour::Conversion.new(from:, to:, rendering:).operations
    end
  end
end
