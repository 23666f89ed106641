# frozen_string_literal: true

module Mordant
  module Cut
    # Whether frames of a programme are those that a shot shows, whatever grade either has: small pictures are
    # compared by the order of their lightness, which no tone curve changes.
    #
    # Source: Spearman's rank correlation coefficient.
    module Agreement
      # kind: one of KINDS; first, count: frames of the shot; by: frames that it is beside, or its speed.
      Disagreement = Struct.new(:kind, :first, :count, :by, keyword_init: true)
      KINDS = %w[picture cut flop slip speed].freeze

      WIDTH = 48 # of the small pictures
      HEIGHT = 27
      REACH = 36 # frames beside the expected ones that are looked at
      ALIKE = 0.72 # correlation of one picture in two grades, at the least
      GAIN = 0.5 # of what is lacking, that others must make good
      LEAST_GAIN = 0.002 # of correlation
      SPEEDS = [0.25, 0.33, 0.5, 0.8, 0.96, 1.04, 1.25, 2.0, 4.0, -1.0].freeze # times the expected one
      PLAIN = 0.01 # deviation of lightness, 0..1, of pictures of one colour, which tell nothing
      LEAST_RUN = 2 # frames

      module_function

      # @param programme [Array<Media::Codes>] WIDTH x HEIGHT, a frame of the programme for each frame of the shot
      # @param source [Array<Media::Codes>] WIDTH x HEIGHT, of the clip
      # @param expected [Array<Integer>] index of the source that each is taken for
      # @return [Array<Disagreement>]
      def of(programme, source, expected)
        shown, there = ranks(programme), ranks(source)
        telling = (0...programme.size).select { |frame| shown[frame] && there[expected[frame]] }
        return [] if telling.empty? || there.none?

        table = Table.new(shown, there, telling, expected)
        flop(programme, there, table, expected) || beside(table, expected, programme.size) || runs(table, expected, programme.size)
      end

      # @return [Array<Numo::SFloat, nil>] each picture's lightness by order, of mean 0 and length 1; nil of one colour
      def ranks(pictures, mirrored: false)
        pictures.map do |codes|
          rgb = Numo::SFloat.cast(codes.rgb) / 65_535
          luma = (rgb[0, true] * 0.2126 + rgb[1, true] * 0.7152 + rgb[2, true] * 0.0722).reshape(codes.height, codes.width)
          luma = luma[true, (codes.width - 1).step(0, -1).to_a] if mirrored
          next if (luma - luma.mean).then { |rest| Math.sqrt((rest * rest).mean) } < PLAIN

          order = Numo::SFloat.zeros(luma.size)
          order[luma.flatten.sort_index] = Numo::SFloat.new(luma.size).seq
          order -= order.mean
          order / Math.sqrt((order * order).sum)
        end
      end

      def flop(programme, there, table, expected)
        turned = Table.new(ranks(programme, mirrored: true), there, table.frames, expected)
        [Disagreement.new(kind: "flop", first: 0, count: programme.size, by: 0)] if turned.own > ALIKE && better?(turned.own, table.own)
      end

      def better?(score, own) = score - own > LEAST_GAIN && score - own > GAIN * (1 - own)

      # All of it beside its place, or at another speed.
      def beside(table, expected, count)
        slips = [*-REACH..-1, *1..REACH].map { |by| [table.compared(->(frame) { expected[frame] + by }), "slip", by] }
        first, pace = expected.first, (expected.size > 1) ? (expected.last - expected.first).fdiv(expected.size - 1) : 0
        speeds = SPEEDS.map { |times| [table.compared(->(frame) { (first + frame * pace * times).round }), "speed", pace * times] }
        (score, _), kind, by = (slips + speeds).select { |(mean, own), *| mean && mean > ALIKE && better?(mean, own) }.max_by { |(mean, _), _, value| [mean, -value.abs] }
        [Disagreement.new(kind:, first: 0, count:, by:)] if score
      end

      # Stretches whose pictures are others: at an end of the shot the edit is elsewhere.
      def runs(table, expected, count)
        wrong = table.frames.select { |frame| (table.at(frame, expected[frame]) || 1.0) < ALIKE }
        wrong.slice_when { |a, b| b > a + 1 }.reject { |run| run.size < LEAST_RUN }.map do |run|
          end_ = run.first.zero? || run.last == count - 1
          Disagreement.new(kind: (end_ && run.size < count) ? "cut" : "picture", first: run.first, count: run.size, by: run.first.zero? ? run.size : -run.size)
        end
      end

      # How alike frames of the programme and of a source are.
      class Table
        # @return [Array<Integer>] frames of the programme that tell something
        attr_reader :frames

        def initialize(shown, there, frames, expected)
          @frames, @expected = frames, expected
          @rows = frames.each_with_index.to_h
          @columns = there.each_index.select { |index| there[index] }.each_with_index.to_h
          @products = matrix(shown, frames).dot(matrix(there, @columns.keys).transpose)
        end

        # @return [Float, nil] nil where the source has no such frame
        def at(frame, index) = (column = @columns[index]) && @products[@rows.fetch(frame), column]

        # @return [Float] mean of all with the expected ones
        def own = @own ||= compared(->(frame) { @expected[frame] })&.first.to_f

        # @param place [#call] frame of the programme to index of the source
        # @return [Array(Float, Float), nil] mean with those, and with the expected ones, over the frames that the source
        #   has; nil where it has too few of them
        def compared(place)
          pairs = frames.filter_map { |frame| at(frame, place.call(frame))&.then { |score| [score, at(frame, @expected[frame])] } }
          pairs.transpose.map { |row| row.sum / row.size } if pairs.size >= ENOUGH * frames.size
        end

        ENOUGH = 0.6 # of the frames

        private

        def matrix(list, indices) = Numo::SFloat.vstack(indices.map { |index| list[index].reshape(1, list[index].size) })
      end
      private_constant :Table
    end
  end
end
