# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # Slope, offset, power and saturation; see Colour::CDL.
      class AscCdl < Node
        STYLES = %w[Fwd Rev FwdNoClamp RevNoClamp].freeze
        # Names of the first version.
        OLD_STYLES = {"v1.2_Fwd" => "Fwd", "v1.2_Rev" => "Rev", "noClampFwd" => "FwdNoClamp", "noClampRev" => "RevNoClamp"}.freeze

        def self.element = "ASC_CDL"

        def self.parse(markup, **)
          style = markup.choice("style", STYLES + OLD_STYLES.keys, "Fwd")
          sop, sat = markup.child("SOPNode"), markup.child("SatNode")
          row = ->(name, neutral) { sop&.child(name)&.numbers(3) || [neutral] * 3 }
          cdl = Colour::CDL.new(slope: row["Slope", 1.0], offset: row["Offset", 0.0], power: row["Power", 1.0],
            saturation: sat&.child("Saturation")&.numbers(1)&.first || 1.0, id: markup["id"])
          new(cdl, style: OLD_STYLES.fetch(style, style)).tap(&:operations)
        rescue ParameterError => e
          markup.fault("#{e.path} to be #{e.expected}", e.found)
        end

        # @param cdl [Colour::CDL]
        # @param style [String]
        def initialize(cdl, style: "FwdNoClamp")
          @cdl, @style = cdl, style
          freeze
        end

        def operations
          clamp = !@style.end_with?("NoClamp")
          @style.start_with?("Fwd") ? @cdl.operations(clamp:) : @cdl.inverse_operations(clamp:)
        end

        def attributes = {"style" => @style, "id" => @cdl.id}.compact

        def fill(xml)
          xml.SOPNode do
            {Slope: @cdl.slope, Offset: @cdl.offset, Power: @cdl.power}.each { |name, row| xml.public_send(name, words(row)) }
          end
          xml.SatNode { xml.Saturation(number(@cdl.saturation)) }
        end
      end
    end
  end
end
