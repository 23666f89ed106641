# frozen_string_literal: true

module Mordant
  module Lut
    # Common LUT Format: a list of processes in one XML file.
    #
    # Source: Academy S-2014-006, version 3.0; SMPTE ST 2136-1. A kind of process is
    # one class in clf/, a Node. Index maps of version 2 and processes bypassed by
    # their application are refused by name.
    class Clf
      LARGEST_FILE = 200 * 1024 * 1024 # bytes
      VERSION = "3.0"
      ROOT = "ProcessList"
      # Elements that say something about a file and do nothing to a picture.
      ABOUT = %w[Description InputDescriptor OutputDescriptor Info].freeze

      # @param path [String]
      # @return [ProcessList]
      # @raise [FormatError, MediaError]
      def self.read(path) = list(Markup.read(path, largest: LARGEST_FILE))

      # @param text [String]
      # @param path [String] for errors
      # @return [ProcessList]
      def self.parse(text, path: "clf") = list(Markup.parse(path, text))

      # @param list [ProcessList]
      # @return [String]
      def self.write(list)
        Nokogiri::XML::Builder.new(encoding: "UTF-8") do |xml|
          xml.public_send(ROOT, "id" => list.id, "compCLFversion" => VERSION, **(list.name ? {"name" => list.name} : {})) do
            list.descriptions.each { |text| xml.Description(text) }
            xml.InputDescriptor(list.input) if list.input
            xml.OutputDescriptor(list.output) if list.output
            list.nodes.each { |node| node.write(xml) }
          end
        end.to_xml
      end

      class << self
        private

        def list(root)
          root.fault("a #{ROOT}", root.name) unless root.name == ROOT
          version = root["compCLFversion"].to_s[/\A\d+/].to_i
          root.fault("compCLFversion of 1 to 3", root["compCLFversion"]) unless version.between?(1, 3)
          about, processes = root.children.partition { |child| ABOUT.include?(child.name) }
          root.fault("at least one process", "none") if processes.empty?
          joined(processes)
          said = ->(name) { about.select { |one| one.name == name }.map(&:text) }
          ProcessList.new(id: root["id"] || "unnamed", name: root["name"], descriptions: said["Description"], nodes: processes.map { |one| Node.read(one) },
            input: said["InputDescriptor"].first, output: said["OutputDescriptor"].first)
        end

        # What one process puts out is what the next one takes.
        def joined(processes)
          processes.each_cons(2) do |first, second|
            next if first["outBitDepth"] == second["inBitDepth"]

            second.fault("inBitDepth #{first["outBitDepth"]}, as the process before puts out", second["inBitDepth"])
          end
        end
      end
    end
  end
end
