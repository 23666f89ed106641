# frozen_string_literal: true

require "nokogiri"

module Mordant
  module Colour
    # Colour corrections in XML files: one (.cc), a collection (.ccc), or decisions
    # (.cdl).
    #
    # Source: ASC Color Decision List 1.2, XML interchange syntax, and its namespace
    # urn:ASC:CDL:v1.01. Files of any namespace, or none, are read.
    module CDLDocument
      NAMESPACE = "urn:ASC:CDL:v1.01"
      ROOTS = {"cc" => "ColorCorrection", "ccc" => "ColorCorrectionCollection", "cdl" => "ColorDecisionList"}.freeze
      LARGEST_FILE = 16 * 1024 * 1024 # bytes

      module_function

      # @param path [String]
      # @return [Array<CDL>] in the order of the file; SOP or saturation left out are neutral
      # @raise [FormatError, MediaError]
      def read(path)
        root = Markup.read(path, largest: LARGEST_FILE)
        root.fault(ROOTS.values.join(", "), root.name) unless ROOTS.value?(root.name)
        elements = (root.name == ROOTS["cc"]) ? [root] : root.descendants(ROOTS["cc"])
        elements.map { |element| correction(element) }
      end

      # @param corrections [Array<CDL>]
      # @param format [String] "cc" (of one), "ccc" or "cdl"
      # @return [String]
      # @raise [ParameterError] of several in a .cc
      def write(corrections, format: "ccc")
        if format == "cc" && corrections.size != 1
          raise ParameterError.new(path: "corrections", expected: "one for a .cc file", found: corrections.size)
        end
        Nokogiri::XML::Builder.new(encoding: "UTF-8") do |xml|
          next element(xml, corrections.first, "xmlns" => NAMESPACE) if format == "cc"

          xml.public_send(ROOTS.fetch(format), "xmlns" => NAMESPACE) do
            corrections.each { |one| (format == "cdl") ? xml.ColorDecision { element(xml, one) } : element(xml, one) }
          end
        end.to_xml
      end

      def correction(element)
        found = {"Slope" => [:slope, 3], "Offset" => [:offset, 3], "Power" => [:power, 3], "Saturation" => [:saturation, 1]}
          .filter_map { |name, (key, count)| element.descendants(name).first&.then { |one| [key, one.numbers(count)] } }.to_h
        CDL.new(slope: found.fetch(:slope, [1.0] * 3), offset: found.fetch(:offset, [0.0] * 3), power: found.fetch(:power, [1.0] * 3),
          saturation: found.fetch(:saturation, [1.0]).first, id: element["id"], description: element.descendants("Description").first&.text)
      rescue ParameterError => e
        element.fault("#{e.path} of #{element["id"] || "a correction"} to be #{e.expected}", e.found)
      end

      def element(xml, cdl, attributes = {})
        xml.ColorCorrection({"id" => cdl.id, **attributes}.compact) do
          xml.SOPNode do
            xml.Description(cdl.description) if cdl.description
            {Slope: cdl.slope, Offset: cdl.offset, Power: cdl.power}.each { |name, row| xml.public_send(name, words(row)) }
          end
          xml.SatNode { xml.Saturation(words([cdl.saturation])) }
        end
      end

      def words(row) = row.map { |x| format("%.9g", x) }.join(" ")

      private_class_method :correction, :element, :words
    end
  end
end
