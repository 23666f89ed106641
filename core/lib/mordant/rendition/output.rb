# frozen_string_literal: true

module Mordant
  module Rendition
    # From log codes of the working space to a rendition of the HDR picture that they make. Where a mapping changes nothing, it is that picture in
    # the rendition's encoding. Bars stay as they are in the HDR picture.
    class Output < Grade::Output
      FINE = 0.004 # standard deviation of fine detail, as a share of the picture's height

      # @param view [Grade::View] with an aim; with mappings, those of the outgoing and of the incoming shot, else by what the HDR
      #   picture's screen can show
      def initialize(view:, space: Colour::WorkingSpace.default)
        @view, @space = view, space
        @aim, @of = view.aim, view.aim.of.within(space)
        @gamut = Aim.gamut(view.encoding, view.limit)
        @mappings = view.mappings || [Mapping.new(levels: Levels.nominal(@of))]
        @plain = Pointwise::Chain.new(operations(@of) + plain)
        @chains = @mappings.to_h { |mapping| [mapping, chain_of(mapping)] }
        @chain = @chains.fetch(@mappings.last)
        @areas = @mappings.select { |mapping| area?(mapping) }.to_h { |mapping| [mapping, areas_of(mapping)] }
      end

      # @return [Boolean] a table can stand for it: no pixel depends on others, or on where it is
      def pointwise? = @areas.empty? && @mappings.none?(&:barred?) && @mappings.uniq.one?

      # @return [Boolean] also of a picture with bars, where black does not move by as much as LEAST
      def drawable? = @areas.empty? && @mappings.uniq.one? && (pointwise? || black_stays?)
      LEAST = 0.5 / 1023

      # @param raster [#width, #height]
      # @return [Integer] pixels around one that it depends on
      def margin(raster) = @areas.empty? ? 0 : gaussian(raster.height).margin

      # @param working [Frame] log codes of the working space
      # @return [Frame] in the view's encoding
      def run(working)
        working.shown(apart: @mappings.uniq.size > 1) do |frame, side|
          frame.with(made(frame, (side == :outgoing) ? @mappings.first : @mappings.last), encoding: view.encoding)
        end
      end

      private

      def black_stays?
        black = Numo::SFloat.new(3, 1).fill(@space.black)
        (@chain.call(black) - @plain.call(black).clip(0.0, nil)).abs.max < LEAST
      end

      def made(frame, mapping)
        rgb = @areas.key?(mapping) ? through_area(frame, mapping) : @chains.fetch(mapping).call(frame.rgb)
        mapping.barred? ? with_bars(rgb, frame, mapping.levels.active) : rgb
      end

      def chain_of(mapping)
        tones = mapping.tones(@aim)
        changes = mapping.operations(@aim, @gamut)
        return @plain if mapping.changes(tones).empty? && changes.one?

        Pointwise::Chain.new(light + changes + codes)
      end

      # Light of BT.2020 of the HDR picture, 1.0 at 100 cd/m2.
      def light
        held = @of.limit ? Colour::GamutLimit.fetch(@of.limit).operations : []
        start = @of.lut ? operations(@of) + convert(@of.encoding, "xyz-d65") : light_to("xyz-d65", @of) + held
        start + [Pointwise::Matrix.new(Colour::Primaries::REC2020.from_xyz), Pointwise::Clamp.new(0.0, nil)]
      end

      # From light of the gamut.
      def codes = [Pointwise::Clamp.new(0.0, @aim.peak * ICtCp::NITS), Pointwise::Matrix.new(Colour::GamutLimit::ALL.fetch(@gamut).to_xyz), *encoded]

      # From codes of the HDR picture.
      def plain
        return [] if @of.encoding == view.encoding

        convert(@of.encoding, "xyz-d65") + encoded
      end

      # From XYZ, 1.0 at 100 cd/m2. Relative codes are shares of the screen's white, from its black on: ITU-R BT.1886, annex 1.
      def encoded
        encoding = Colour.encoding(view.encoding)
        return encoding.encoding if encoding.absolute?

        [Pointwise::Matrix.new(Colour::Matrix3.diagonal([1.0 / (@aim.peak * ICtCp::NITS)] * 3)), *encoding.encoding, *from_black(encoding)]
      end

      def from_black(encoding)
        black = encoding.transfer.encode(Numo::DFloat[@aim.black / @aim.peak])[0]
        black.zero? ? [] : [Pointwise::Formula.new(recordable: true) { |planes| planes.map { |plane| ((plane - black) * (1.0 / (1.0 - black))).clip(0.0, nil) } }]
      end

      def area?(mapping) = mapping.area? && !mapping.tones(@aim).neutral?

      def gaussian(height) = Area::Gaussian.new([FINE * height, 0.5].max)

      # Before, within and after I, Ct and Cp.
      def areas_of(mapping)
        changes = mapping.operations(@aim, @gamut)
        at = changes.index { |operation| operation.is_a?(Toning) }
        [light + changes.first(at), [changes[at]], changes.drop(at + 1) + codes].map { |some| Pointwise::Chain.new(some) }
      end

      # Fine detail of intensity that the mapping took, given back where it is bright.
      def through_area(frame, mapping)
        there, toned, back = @areas.fetch(mapping)
        before = there.call(frame.rgb)
        after = toned.call(before)
        window = frame.place.window
        blur = gaussian(frame.place.height)
        lost = [before, after].map { |planes| planes[0, true].dup.then { |plane| plane - blur.call(plane, window) } }.reduce(:-)
        after[0, true] = after[0, true] + lost * mapping.tones(@aim).bright(after[0, true].dup) * mapping.one.detail
        back.call(after)
      end

      # @param active [Array<Float>] see Levels
      def with_bars(rgb, frame, active)
        bars = bars(frame.place, active)
        return rgb unless bars.any?

        at = bars.where
        rgb[true, at] = @plain.call(frame.rgb[true, at].dup)
        rgb
      end

      # @return [Numo::Bit] [n], outside the active picture
      def bars(place, (left, top, width, height))
        window = place.window
        columns = Numo::Int32.new(window.width).seq + window.left
        rows = Numo::Int32.new(window.height).seq + window.top
        across = outside(columns, left * place.width, (left + width) * place.width)
        down = outside(rows, top * place.height, (top + height) * place.height)
        ((down.reshape(window.height, 1) + across.reshape(1, window.width)) > 0).reshape(window.size)
      end

      def outside(places, from, to) = Numo::Int32.cast((places < from.round) | (places >= to.round))
    end
  end
end
