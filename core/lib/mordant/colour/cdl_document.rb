# frozen_string_literal: true

require "rexml/document"

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
        raise MediaError.new(path, "the file is not there") unless File.file?(path)
        raise MediaError.new(path, "larger than #{LARGEST_FILE / 1024 / 1024} MB") if File.size(path) > LARGEST_FILE

        text = File.read(path, encoding: "UTF-8")
        fault(path, 1, "XML without a document type", "<!DOCTYPE") if text.include?("<!DOCTYPE")
        root = parse(path, text).root
        fault(path, 1, ROOTS.values.join(", "), root&.name || "nothing") unless ROOTS.value?(root&.name)
        corrections(root).map { |element| correction(path, element) }
      end

      # @param corrections [Array<CDL>]
      # @param format [String] "cc" (of one), "ccc" or "cdl"
      # @return [String]
      # @raise [ParameterError] of several in a .cc
      def write(corrections, format: "ccc")
        if format == "cc" && corrections.size != 1
          raise ParameterError.new(path: "corrections", expected: "one for a .cc file", found: corrections.size)
        end
        document = REXML::Document.new
        document << REXML::XMLDecl.new("1.0", "UTF-8")
        top = (format == "cc") ? document : document.add_element(ROOTS.fetch(format), "xmlns" => NAMESPACE)
        corrections.each do |one|
          parent = (format == "cdl") ? top.add_element("ColorDecision") : top
          element(parent, one, alone: format == "cc")
        end
        text = +""
        REXML::Formatters::Pretty.new(2).tap { |pretty| pretty.compact = true }.write(document, text)
        text << "\n"
      end

      def parse(path, text)
        REXML::Document.new(text)
      rescue REXML::ParseException => e
        fault(path, e.line, "well-formed XML", e.message.lines.first.strip)
      end

      def corrections(root)
        return [root] if root.name == ROOTS["cc"]

        REXML::XPath.match(root, ".//*[local-name()='ColorCorrection']")
      end

      def correction(path, element)
        id = element.attributes["id"]
        CDL.new(slope: numbers(path, element, "Slope", 3) || [1.0] * 3, offset: numbers(path, element, "Offset", 3) || [0.0] * 3,
          power: numbers(path, element, "Power", 3) || [1.0] * 3, saturation: numbers(path, element, "Saturation", 1)&.first || 1.0,
          id:, description: child(element, "Description")&.text&.strip)
      rescue ParameterError => e
        fault(path, 1, "#{e.path} of #{id || "a correction"} to be #{e.expected}", e.found)
      end

      def numbers(path, element, name, count)
        found = child(element, name) or return

        values = found.text.to_s.split.map { |word| Float(word, exception: false) }
        return values if values.size == count && values.all? { |x| x&.finite? }

        fault(path, 1, "#{count} finite #{(count == 1) ? "number" : "numbers"} in #{name} of #{element.attributes["id"] || "a correction"}", found.text.to_s.strip)
      end

      def child(element, name) = REXML::XPath.first(element, ".//*[local-name()='#{name}']")

      def element(parent, cdl, alone:)
        node = parent.add_element("ColorCorrection")
        node.add_attribute("xmlns", NAMESPACE) if alone
        node.add_attribute("id", cdl.id) if cdl.id
        sop = node.add_element("SOPNode")
        sop.add_element("Description").text = cdl.description if cdl.description
        {"Slope" => cdl.slope, "Offset" => cdl.offset, "Power" => cdl.power}.each { |name, row| sop.add_element(name).text = words(row) }
        node.add_element("SatNode").add_element("Saturation").text = words([cdl.saturation])
      end

      def words(row) = row.map { |x| format("%.9g", x) }.join(" ")

      def fault(path, line, expected, found) = raise(FormatError.new(path:, line:, expected:, found:))

      private_class_method :parse, :corrections, :correction, :numbers, :child, :element, :words, :fault
    end
  end
end
