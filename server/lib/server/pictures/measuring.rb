# frozen_string_literal: true

module Server
  module Pictures
    # What the instruments read in a picture, and what of it is marked in the picture.
    #
    # Of a request: "scopes", see Mordant::Scopes::Instruments; "tap", where they measure, and
    # "region", a part of the picture they are restricted to; "skin", a patch; "acts", a step
    # whose pixels are shown; "light", a part of an instrument, whose pixels are shown;
    # "marks", that clipped pixels are; "beside", a second picture; "bands", see Mordant::Scopes::Bands. "instruments":
    # false leaves all out.
    class Measuring
      # @param wish [Wish]
      # @param body [Hash]
      # @param size [String] of the picture, see Desk::REDUCTIONS
      def initialize(wish, body, size:)
        @wish, @body, @size = wish, body, size
        @tap = body.fetch("measure", "final")
        raise Mordant::ParameterError.new(path: "measure", expected: Wish::TAPS.join(", "), found: @tap) unless Wish::TAPS.include?(@tap)
      end

      # @param working [Mordant::Frame] log codes of the working space
      # @param measured [Mordant::Frame] in the view's codes
      # @return [Array(Hash, Hash)]
      def read(working, measured, *)
        raster = {width: measured.width, height: measured.height}
        return [raster, {}] if @body["instruments"] == false

        instruments = Mordant::Scopes::Instruments.new(signal(measured, region: @body["region"]), Mordant::Scopes::Instruments.checked(@body["scopes"]), limit: Mordant::Colour::GamutLimit::ALL[@wish.screen.view.limit])
        skin = @body["skin"] && {skin: Mordant::Scopes::Skin.new(measured, @body["skin"]).to_h}
        parts = {**instruments.parts, **beside}
        [{**raster, tone: Mordant::Scopes::ToneTrace.new(working, space: @wish.project.space).to_h, measure: @tap, **instruments.header, **skin.to_h}, parts]
      end

      # A second picture that instruments show together with the first: "beside", an object of
      # frame, source and washes, each as in the first without it.
      #
      # @return [Hash{Symbol => String}] its traces, their names with "beside_" before them
      # @raise [Mordant::ParameterError]
      def beside
        document = @body["beside"] or return {}
        raise Mordant::ParameterError.new(path: "beside", expected: "an object of frame, source and washes", found: document) unless document.is_a?(Hash) && (document.keys - %w[frame source washes]).empty?

        raise Mordant::ParameterError.new(path: "beside.frame", expected: "a whole number", found: document["frame"]) unless document.fetch("frame", 0).is_a?(Integer)

        wish = @wish.with(**document.transform_keys(&:to_sym))
        signal = Mordant::Scopes::Signal.new(Desk.current.picture(wish, size: @size)[1], region: @body["region"])
        wanted = Mordant::Scopes::Instruments.checked(@body["scopes"]).except("solid")
        Mordant::Scopes::Instruments.new(signal, wanted).parts.transform_keys { |name| :"beside_#{name}" }
      end

      # @param drawn [Mordant::Frame] as the screen shows it
      # @return [Mordant::Frame] with what is marked in it
      def shown(working, measured, drawn)
        drawn = banded(working, measured, drawn) if @body["bands"]
        drawn = veil(drawn, lit(measured)) if @body["light"]
        drawn = veil(drawn, acting) if @body["acts"]
        drawn = Mordant::Scopes::Clipping.paint(drawn, signal(measured)) if @body["marks"] == true
        drawn
      end

      private

      def signal(measured, region: nil)
        Mordant::Scopes::Signal.new(elsewhere ? elsewhere[1] : measured, region:)
      end

      def banded(working, measured, drawn)
        picture = Mordant::Scopes::Quantity::Picture.new(working: elsewhere&.first || working, space: @wish.project.space, unit: Mordant::Scopes::Scale.new(@wish.screen.view).unit)
        Mordant::Scopes::Bands.new(@body["bands"]).paint(drawn, signal(measured), picture)
      end

      # The picture at the tap, where that is not the final one.
      def elsewhere
        return if @tap == "final"

        @elsewhere ||= Desk.current.picture(@wish.at(@tap), size: @size)
      end

      def veil(drawn, weights) = Mordant::Grade::Acting.veil(drawn, weights)

      def lit(measured) = Mordant::Scopes::Selection.new(@body["light"]).weights(signal(measured))

      def acting
        acts = @body["acts"]
        raise Mordant::ParameterError.new(path: "acts", expected: "a step and perhaps one of its regions", found: acts) unless acts.is_a?(Hash)

        Desk.current.acting(@wish, step: acts["step"], region: acts["region"], size: @size)
      end
    end
  end
end
