# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A table for each channel, or one for all: over 0..1, or over every half float.
      class Lut1d < Node
        HALVES = 65_536

        def self.element = "LUT1D"

        def self.parse(markup, in_scale:, out_scale:)
          dimensions, values = array(markup)
          length, columns = dimensions
          fine = dimensions.size == 2 && [1, 3].include?(columns) && Curve1d::SIZES.cover?(length)
          markup.fault("an Array of dim n 1 or n 3 with n in #{Curve1d::SIZES}", dimensions.join(" ")) unless fine
          halves = markup.choice("halfDomain", %w[true false], "false") == "true"
          markup.fault("#{HALVES} rows over every half float", length) if halves && length != HALVES
          markup.choice("interpolation", %w[linear], "linear")
          table = values.reshape(length, columns)
          table = (markup.choice("rawHalfs", %w[true false], "false") == "true") ? raw(markup, table) : table / out_scale
          table = Numo::NArray.hstack([table] * 3) if columns == 1
          new(table, halves:, keep_hue: markup.choice("hueAdjust", %w[dw3], "dw3") && !markup["hueAdjust"].nil?)
        end

        # Integers that are the bits of half floats.
        def self.raw(markup, table)
          fine = table.eq(table.round).all? && table.min >= 0 && table.max < HALVES
          markup.fault("whole numbers of 0..65535 in a table of raw halfs", "#{table.min} to #{table.max}") unless fine
          Numo::DFloat.cast(Media::Half.decode(Numo::UInt16.cast(table)))
        end
        private_class_method :raw

        # @param table [Numo::DFloat] [n, 3]
        # @param halves [Boolean] rows stand for the half floats of their index
        # @param keep_hue [Boolean] the middle channel keeps its place between the others
        def initialize(table, halves: false, keep_hue: false)
          @table, @halves, @keep_hue = table, halves, keep_hue
          freeze
        end

        def operations
          curve = @halves ? Pointwise::Curve.new(HalfTable.columns(@table), domain: Pointwise::Curve::DIRECT) : Curve1d.new(@table).curve
          @keep_hue ? [KeptHue.new(Pointwise::Chain.new([curve]))] : [curve]
        end

        def attributes = {"halfDomain" => @halves || nil, "hueAdjust" => @keep_hue ? "dw3" : nil}.compact.transform_values(&:to_s)

        def fill(xml)
          xml.Array("\n#{@table.to_a.map { |row| words(row) }.join("\n")}\n", "dim" => "#{@table.shape[0]} 3")
        end
      end
    end
  end
end
