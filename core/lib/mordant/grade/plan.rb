# frozen_string_literal: true

module Mordant
  module Grade
    # A recipe compiled for a source: from its code values to log codes of the
    # working space. An Output goes on from there.
    #
    # Neutral and switched-off steps vanish, neighbouring pointwise operations fuse
    # (see Pointwise::Chain). What sees more than a pixel's own value, or acts on a part of the
    # picture only, stands between them: see Section.
    class Plan
      # A scene brought into a display-referred space is rendered with this.
      SCENE_TO_DISPLAY = "sdr-video-1.0"

      attr_reader :recipe, :source, :space

      # @param recipe [Recipe]
      # @param source [String] encoding id of the source's code values
      # @param compress [Boolean] bring scene colours beyond AP1 within it, before all steps
      # @raise [UnknownIdError, MediaError, FormatError]
      def initialize(recipe:, source:, space: Colour::WorkingSpace.default, compress: false)
        @recipe, @source, @space, @compress = Links.within(recipe), source, space, compress
        @seen = {}
        @head, @tail = operations
        @sections = joined(@head + @tail)
      end

      # @return [Array<#call>] in signal order, the first a Section::Fused; see Section
      attr_reader :sections

      # @return [Boolean] a look-up table can stand for it
      def pointwise? = sections.one?

      # @param frame [Integer] from the shot's first one
      # @return [Plan] as it is there
      def at(frame) = recipe.moving? ? Plan.new(recipe: recipe.at(frame), source:, space:, compress: @compress) : self

      # @param raster [#width, #height] of the whole picture
      # @return [Integer] pixels around one that it depends on
      def margin(raster) = sections.sum { |section| section.margin(raster) }

      # @return [Integer] rows of a picture that hold all detail that steps change; on fewer it looks otherwise
      #   than the master reduced to them
      def least_rows = recipe.entries.select(&:acts?).filter_map { |entry| entry.step.detail }.min&.then { |size| (DETAIL / size).ceil } || 0

      # @return [Integer] frames before and after that it depends on
      def window = sections.sum(&:window)

      # @return [Pointwise::Chain] from the source's code values to the working space
      # @raise [ParameterError] of a plan that is not pointwise
      def chain = only_chain(sections)

      # What does not depend on the values of any parameter, up to the first step.
      #
      # @return [Pointwise::Chain]
      def head = Pointwise::Chain.new(@head)

      # @return [Object] plans with equal ones have equal heads
      def head_key = [Colour.encoding(source), @compress, space.id, strands.first && domain_of(strands.first)]

      # @return [Pointwise::Chain] what follows the head
      # @raise [ParameterError] of a plan that is not pointwise
      def tail = only_chain(joined(@tail))

      # @param codes [Media::Codes]
      # @param around [#call, nil] see Moment.of
      # @return [Frame] graded, in log codes of the working space
      def run(codes, around: nil) = picture(Moment.of(codes, around:))

      # @param codes [Media::Codes]
      # @param around [#call, nil] see Moment.of
      # @return [Frame] the same as #run, made later where it can be
      def coming(codes, around: nil)
        return run(codes, around:) unless pointwise?

        Coming.new(codes.rgb, [chain], width: codes.width, height: codes.height, encoding: space.log)
      end

      # @param frame [Frame] in the source encoding
      # @return [Frame] graded, in log codes of the working space
      # @raise [ParameterError] of a frame in another encoding
      def apply(frame)
        unless frame.encoding == source
          raise ParameterError.new(path: "frame.encoding", expected: source, found: frame.encoding)
        end
        picture(Moment.of(frame))
      end

      DETAIL = 1.5 # pixels that a size of detail needs
      BAND = 3 * 1024 * 1024 # pixels of a window, margins included, where it can be kept to

      # @param recipe [Recipe]
      # @return [Plan] of another recipe for the same source, kept
      def seen(recipe)
        @seen.shift while @seen.size > SEEN
        @seen[recipe.stamp] ||= Plan.new(recipe:, source:, space:, compress: @compress)
      end
      SEEN = 8

      # Rows of a moment's window that are rendered at once, so that memory stays flat where margins let it: as few bands as hold to BAND with
      # their margins. Where none do, or those would be made of TWICE the window or more, bands of the least work times pixels at once, which
      # may be all of it.
      #
      # @param moment [Moment]
      # @return [Array<Window>] the largest first: the others find room where it was
      def bands(moment)
        whole = moment.window
        return [whole] if whole.size <= BAND || pointwise?

        around = margin(moment)
        costs = (1..MOST_BANDS).to_h { |count| split(whole, count).then { |some| [some, some.map { |one| one.grown(around, moment).size }] } }
        within = costs.select { |_, sizes| sizes.max <= BAND && sizes.sum < TWICE * whole.size }
        chosen = within.empty? ? costs.min_by { |_, sizes| sizes.sum * sizes.max } : within.min_by { |_, sizes| sizes.sum }
        chosen.first.sort_by { |one| -one.grown(around, moment).size }
      end
      MOST_BANDS = 16
      TWICE = 2

      # @param moment [Moment]
      # @param bands [Array<Window>] that it is rendered in, as #bands
      # @return [Frame] of its window, graded, in log codes of the working space
      def picture(moment, bands: bands(moment))
        moment = moment.from(Origin.new(self, moment)) unless moment.origin
        rgb = bands.one? ? rgb(moment) : Numo::SFloat.new(3, moment.window.size).allocate
        bands.each { |band| put(rgb, moment, band) } if bands.size > 1
        Frame.new(rgb, width: moment.window.width, height: moment.window.height, encoding: space.log, place: Place.new(window: moment.window, width: moment.width, height: moment.height))
      end

      private

      # What sections up to one make of a moment, each asking the one before it.
      def rgb(moment, upto = sections.size - 1)
        return moment.entered(sections.first.chain) if upto.zero?

        used = []
        made = sections[upto].call(moment) { |other| rgb(other, upto - 1).tap { |one| used << one } }
        used.each { |one| one.free unless one.equal?(made) } # nobody has them any more, and they are large
        made
      end

      def put(whole, moment, band)
        first = (band.top - moment.window.top) * band.width
        made = rgb(moment.at(band))
        whole[true, first...(first + band.size)] = made
        made.free
        GC.start # of a band's arrays, which are large, before the next one's
      end

      def split(whole, count)
        rows = (whole.height / count.to_f).ceil
        (0...whole.height).step(rows).map { |top| Window.new(left: whole.left, top: whole.top + top, width: whole.width, height: [rows, whole.height - top].min) }
      end

      # Runs of operations as one section each; the first is one of them.
      def joined(list)
        runs = list.slice_when { |a, b| section?(a) || section?(b) }.map { |run| section?(run.first) ? run.first : Section::Fused.new(Common.chain(run)) }
        runs.first.is_a?(Section::Fused) ? runs : [Section::Fused.new(Pointwise::Chain.new([])), *runs]
      end

      def section?(part) = part.respond_to?(:margin)

      def only_chain(parts)
        return parts.first.chain if parts.one?

        raise ParameterError.new(path: "recipe", expected: "steps a look-up table can hold", found: recipe.beyond_luts.map(&:name).join(", "))
      end

      # @return [Array<Array<Entry>>] what acts, steps side by side together
      def strands = recipe.strands.map { |group| group.select(&:acts?) }.reject(&:empty?)

      # @return [Symbol] steps side by side, and those with a matte, meet in log codes
      def domain_of(group) = (group.one? && !group.first.masked?) ? group.first.step.class.domain : :log

      # @return [Array<Array>] up to the first step, and from there on
      def operations
        entered, at = entry
        parts = strands.map do |group|
          domain = space.encoding_of(domain_of(group))
          before, at = convert(at, domain), domain
          [before, parts_of(group)]
        end
        leaving = convert(at, space.log)
        return [entered + leaving, []] if parts.empty?

        [entered + parts.first.first, [*parts.first.last, *parts.drop(1).flatten, *leaving]]
      end

      # @return [Array] operations and sections
      def parts_of(group)
        return [weighted(group)] if group.any?(&:masked?)
        return [Pointwise::Braid.new(group.map { |entry| Common.chain(in_log_codes(entry, entry.operations(space))) })] unless group.one?

        group.first.pointwise? ? group.first.operations(space) : [group.first.section(space)]
      end

      def weighted(group)
        strands = group.map do |entry|
          own = entry.worked.pointwise? ? entry.operations(space, share: 1.0) : [entry.section(space, share: 1.0)]
          Section::Weighted::Strand.new(sections: joined(in_log_codes(entry, own)), matte: (entry.matte if entry.masked?), share: entry.share)
        end
        Section::Weighted.new(strands, space)
      end

      def in_log_codes(entry, parts)
        own = space.encoding_of(entry.step.class.domain)
        [*convert(space.log, own), *parts, *convert(own, space.log)]
      end

      # What happens to the source before all steps, and the encoding it is in then.
      def entry
        scene = Colour.encoding(source).scene?
        if scene && !space.scene?
          [compressed + convert(@compress ? "acescg" : source, space.log, SCENE_TO_DISPLAY), space.log]
        elsif scene && @compress
          [compressed, "acescg"]
        else
          [[], source]
        end
      end

      def compressed = @compress ? [*convert(source, "acescg"), Colour::ACES::GamutCompression.new] : []

      def convert(from, to, rendering = nil) = Colour::Conversion.between(from, to, rendering)
    end
  end
end
