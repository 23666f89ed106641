# frozen_string_literal: true

module Server
  module Pictures
    # What the instruments read in a picture, and what of it is marked in the picture.
    #
    # Of a request: "scopes", see Mordant::Scopes::Instruments; "tap", where they measure, and
    # "region", a part of the picture they are restricted to; "skin", a patch; "acts", a step
    # whose pixels are shown; "light", a part of an instrument, whose pixels are shown;
    # "marks", that clipped pixels are, and colours beyond P3-D65 where a view has them; "breaks", that places are where tones break; "beside", a reference that instruments show as well;
    # "difference", one that the picture is taken from, times "gain"; "bands", see Mordant::Scopes::Bands. "guides": levels that black
    # and white are to touch, see Mordant::Scopes::Touch. "instruments": false leaves all out.
    class Measuring
      # @param wish [Wish]
      # @param body [Hash]
      # @param extent [String, Mordant::Grade::Window] of the picture, see Desk#shown
      def initialize(wish, body, extent:)
        @wish, @body, @extent = wish, body, extent
        @tap = body.fetch("measure", "final")
        raise Mordant::ParameterError.new(path: "measure", expected: Wish::TAPS.join(", "), found: @tap) unless Wish::TAPS.include?(@tap)
      end

      # What is made meanwhile is made by another thread, where one is free; see Mordant::Pointwise::Together.
      #
      # @param working [Mordant::Frame] log codes of the working space
      # @param measured [Mordant::Frame] in the view's codes
      # @yield something else of the picture, which asks the database nothing
      # @return [Array(Hash, Hash, Object)] header and parts of an answer, and what the block returns
      def read(working, measured)
        size = {width: measured.width, height: measured.height}
        return [size, {}, (yield if block_given?)] if @body["instruments"] == false

        seen, space = signal(measured, region: @body["region"]), @wish.project.space
        instruments = Mordant::Scopes::Instruments.new(seen, wanted, limit: Mordant::Colour::GamutLimit::ALL[@wish.screen.view.limit])
        work = [-> { yield if block_given? }, *instruments.work, -> { Mordant::Scopes::ToneTrace.of(working, space:).to_h }]
        made, *, tone = Mordant::Pointwise::Together.each(work, pixels: seen.size, &:call)
        header = {**size, tone:, measure: @tap, **instruments.header, **touch(seen), **breaks(measured), **beyond(measured), **skin(measured)}
        [header, {**instruments.parts, **beside}, made]
      end

      # @return [Hash] where black and white touch the levels that they are to, where those are asked for
      def touch(seen)
        places = Mordant::Scopes::Touch.checked(@body["guides"])
        places.empty? ? {} : {guides: Mordant::Scopes::Touch.new(seen, places).to_h}
      end

      # @return [Hash] a patch of skin, where one is asked for
      def skin(measured) = @body["skin"] ? {skin: Mordant::Scopes::Skin.new(measured, @body["skin"]).to_h} : {}

      # @return [Hash] share of the pixels at which tones break, where that is looked for
      def breaks(measured) = (@body["breaks"] == true) ? {breaks: Mordant::Scopes::Banding.share(signal(measured, region: @body["region"]))} : {}

      # @return [Hash] share of the pixels beyond P3-D65, where clipping is marked and the view has such
      def beyond(measured) = (@body["marks"] == true && Mordant::Scopes::Beyond.wider?(measured.encoding)) ? {beyond: Mordant::Scopes::Beyond.share(signal(measured, region: @body["region"]))} : {}

      # What instruments show together with the first picture: of "beside", see Second.
      #
      # @return [Hash{Symbol => String}] its traces, their names with "beside_" before them
      # @raise [Mordant::ParameterError]
      def beside
        return {} if @body["beside"].nil? || @tap == "second"

        signal = Mordant::Scopes::Signal.new(second("beside")[1], region: @body["region"])
        Mordant::Scopes::Instruments.new(signal, wanted.except("solid")).parts.transform_keys { |name| :"beside_#{name}" }
      end

      # @param drawn [Mordant::Frame] as the screen shows it
      # @return [Mordant::Frame] with what is marked in it
      def shown(working, measured, drawn)
        drawn = different(drawn) if @body["difference"]
        drawn = banded(working, measured, drawn) if @body["bands"]
        drawn = Mordant::Grade::MatteLook.veil(drawn, lit(measured)) if @body["light"]
        drawn = Mordant::Grade::MatteLook.draw(drawn, acting, @body["acts"].fetch("look", "veil")) if @body["acts"]
        drawn = Mordant::Scopes::Beyond.paint(Mordant::Scopes::Clipping.paint(drawn, signal(measured)), signal(measured)) if @body["marks"] == true
        drawn = Mordant::Scopes::Banding.paint(drawn, signal(measured)) if @body["breaks"] == true
        drawn
      end

      # @return [Hash] share of the picture that is shown as acted on, and share in between
      def matte = @body["acts"] ? {matte: Mordant::Grade::MatteLook.told(acting)} : {}

      # @param bands [Mordant::Scopes::Bands]
      # @return [Float, nil] of the whole picture
      def top(bands)
        working, measured, = Desk.current.shown(@wish, @extent)
        bands.top(signal(measured), quantities(working))
      end

      private

      def wanted = @wanted ||= Mordant::Scopes::Instruments.checked(@body["scopes"])

      # @return [Array<Mordant::Frame>] as Desk#shown
      def second(field) = (@seconds ||= {})[@body[field]] ||= Desk.current.shown(Second.of(@wish, @body[field], field), @extent)

      # How far the codes of the picture are from those of a second one, times "gain".
      def different(drawn)
        gain = @body.fetch("gain", 4)
        raise Mordant::ParameterError.new(path: "gain", expected: "a number in 1..64", found: gain) unless gain.is_a?(Numeric) && gain.between?(1, 64)

        other = second("difference").last
        drawn.with((drawn.rgb - other.rgb).abs * gain.to_f)
      end

      def signal(measured, region: nil)
        Mordant::Scopes::Signal.new(elsewhere ? elsewhere[1] : measured, region:)
      end

      def banded(working, measured, drawn)
        bands = Mordant::Scopes::Bands.new(@body["bands"])
        top = Measuring.new(@wish.with(raster: nil), @body, extent: "full").top(bands) if @extent.is_a?(Mordant::Grade::Window)
        bands.paint(drawn, signal(measured), quantities(working), top:)
      end

      def quantities(working)
        Mordant::Scopes::Quantity::Picture.new(working: elsewhere&.first || working, space: @wish.project.space, unit: Mordant::Scopes::Scale.new(@wish.screen.view).unit)
      end

      # The picture at the tap, where that is not the final one.
      def elsewhere
        return if @tap == "final" || (@tap == "second" && !@body["beside"])
        return second("beside") if @tap == "second"

        @elsewhere ||= Desk.current.shown(@wish.at(@tap), @extent)
      end

      def lit(measured)
        place = @extent.is_a?(String) ? {} : {left: @extent.left, whole: @wish.raster.first}
        Mordant::Scopes::Selection.new(@body["light"]).weights(signal(measured), **place)
      end

      def acting
        return @acting if @acting

        acts = @body["acts"]
        raise Mordant::ParameterError.new(path: "acts", expected: "a step and perhaps one of its regions, or a contributor of its matte", found: acts) unless acts.is_a?(Hash)

        @acting = Desk.current.acting(@wish, step: acts["step"], region: acts["region"], contributor: acts["contributor"], upto: acts["upto"] == true, extent: @extent)
      end
    end
  end
end
