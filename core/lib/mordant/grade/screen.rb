# frozen_string_literal: true

module Mordant
  module Grade
    # How a view is drawn on a particular screen: what screen the browser's picture
    # is made for, and whether the view is on.
    #
    # A picture is made for the view first, in the very codes its file would hold,
    # and from there converted to the canvas by the light it stands for. Where view
    # and canvas agree nothing is converted. With the view off the codes of the
    # working space are shown as they are.
    class Screen
      # Screens a browser picture can be made for.
      CANVASES = {"2.4" => "rec709-bt1886", "2.2" => "rec709-g2.2", "srgb" => "srgb", "p3" => "p3-d65-g2.6"}.freeze

      EXAGGERATION = 4.0
      # Of HDR on a screen that cannot show all of it: bright light rolls off towards its white, or a window of exposure is shown, so many stops
      # darker than it is. Without either what is brighter than its white is cut off.
      ROLLED = "rolled"
      WINDOWS = (0.0..7.0) # stops

      attr_reader :view, :canvas

      # From a view's codes to a canvas's, kept with its tables.
      #
      # @param bright [String, Float, nil] of an absolute encoding: ROLLED, or stops of a window
      # @param peak [Float] cd/m2, from which it is rolled off
      # @return [Pointwise::Chain]
      def self.onward(from, to, bright: nil, peak: Rendition::Levels::MOST)
        @kept ||= {}
        @kept.shift if @kept.size > ONWARD
        @kept[[from, to, bright, peak]] ||= Pointwise::Chain.new((from == to) ? [] : [Pointwise::Clamp.new(0.0, 1.0), *dimmed(from, to, bright, peak)])
      end
      ONWARD = 64

      def self.dimmed(from, to, bright, peak)
        return Colour::Conversion.new(from:, to:).operations unless bright

        less = (bright == ROLLED) ? RollOff.new(peak) : Pointwise::Matrix.new(Colour::Matrix3.diagonal([2.0**-bright] * 3))
        [*Colour::Conversion.new(from:, to: "rec709-display-linear").operations, less, *Colour::Conversion.new(from: "rec709-display-linear", to:).operations]
      end
      private_class_method :dimmed

      # @param view [View]
      # @param canvas [String] a key of CANVASES
      # @param on [Boolean] the view transform
      # @param exaggerate [Boolean] colours drawn EXAGGERATION times as far from grey, to see a
      #   cast; nothing measured or written knows of it
      # @param lut [String, nil] path in the LUT library of what corrects the screen, from canvas
      #   codes to canvas codes; nothing measured or written knows of it
      # @param corrected [Calibration::Loaded, nil] what a session has made for the screen, from canvas codes to canvas codes; nothing
      #   measured or written knows of it
      # @param bright [String, Numeric, nil] ROLLED or stops of a window, of views in an absolute encoding; nothing measured or
      #   written knows of it
      # @raise [ParameterError, MediaError]
      def initialize(view:, canvas: "2.4", space: Colour::WorkingSpace.default, on: true, exaggerate: false, lut: nil, corrected: nil, bright: nil)
        raise ParameterError.new(path: "canvas", expected: CANVASES.keys.join(", "), found: canvas) unless CANVASES.key?(canvas)
        raise ParameterError.new(path: "bright", expected: "#{ROLLED}, or stops in #{WINDOWS}", found: bright) unless [nil, ROLLED].include?(bright) || WINDOWS === bright # standard:disable Style/CaseEquality

        @view, @canvas, @space, @on = view, canvas, space, on
        @wish = {canvas:, space:, on:, exaggerate:, lut:, corrected:, bright:}
        @bright = (bright.is_a?(Numeric) ? bright.to_f : bright) if Colour.encoding(view.encoding).absolute?
        @peak = view.aim&.peak || Rendition::Levels.nominal(view).greatest
        @boost = Pointwise::Chain.new(exaggerate ? Steps::Balance::SaturationModel.operations("plain", EXAGGERATION, space.luminance_weights) : [])
        @output = Output.for(view, space)
        @stamp = [view.to_h, view.stamps, canvas, space.id, on, exaggerate, lut && (Lut::Library.stamp(lut) || lut), *@bright, *corrected&.digest].freeze
        @correction = Pointwise::Chain.new([*(Lut::Library.fetch(lut).operations if lut), *corrected&.lattice])
        freeze
      end

      def on? = @on

      # @param view [View]
      # @return [Screen] of another view, else the same
      def with(view) = Screen.new(view:, **@wish)

      # @param raster [#width, #height] of the whole picture
      # @return [Integer] pixels around one that it depends on
      def margin(raster) = @output.margin(raster)

      # @return [Boolean] see Output#drawable?
      def drawable? = @output.drawable?

      # @return [Boolean] a pixel depends on nothing but itself
      def pointwise? = @output.pointwise?

      # @return [String] encoding id of what is drawn
      def encoding = on? ? CANVASES.fetch(canvas) : @space.log

      # What its pictures depend on, files included.
      #
      # @return [Array]
      attr_reader :stamp

      # @return [Pointwise::Chain] from log codes of the working space to the canvas
      def chain = (on? ? @boost + @output.chain + onward : @boost) + @correction

      # @param working [Frame] log codes of the working space
      # @return [Frame] in the view's encoding, as its file would hold it
      def measured(working) = @output.run(working)

      # @param working [Frame] log codes of the working space
      # @param measured [Frame] the same in the view's encoding
      # @return [Frame] codes for the canvas
      def drawn(working, measured)
        shown = uncorrected(working, measured)
        @correction.empty? ? shown : shown.with(@correction.call(shown.rgb))
      end

      # A finished picture, one that was brought in or frozen: of the view it has the codes alone.
      #
      # @param still [Frame] codes of a display encoding
      # @return [Array<Frame>] in the view's codes, and as it is drawn
      def finished(still)
        measured = turned(still, view.encoding)
        shown = turned(measured, CANVASES.fetch(canvas))
        [measured, @correction.empty? ? shown : shown.with(@correction.call(shown.rgb))]
      end

      private

      def turned(frame, encoding)
        chain = self.class.onward(frame.encoding, encoding)
        chain.empty? ? frame : frame.with(chain.call(frame.rgb), encoding:)
      end

      def uncorrected(working, measured)
        return drawn_boosted(working) unless @boost.empty?
        return working unless on?
        return measured if onward.empty?

        measured.with(onward.call(measured.rgb), encoding:)
      end

      def drawn_boosted(working)
        boosted = working.with(@boost.call(working.rgb))
        return boosted unless on?

        shown = measured(boosted)
        onward.empty? ? shown : shown.with(onward.call(shown.rgb), encoding:)
      end

      def onward = @bright ? self.class.onward(view.encoding, CANVASES.fetch(canvas), bright: @bright, peak: @peak) : self.class.onward(view.encoding, CANVASES.fetch(canvas))
    end
  end
end
