# frozen_string_literal: true

module Mordant
  module Lut
    class Clf
      # A process. Descendants, one a file, are Structs or classes over values
      # normalised from the bit depths of the file (1.0 is full scale) and have
      #
      #   self.element            -> its name in files
      #   self.parse(markup, in_scale:, out_scale:) -> node
      #   operations              -> Pointwise operations
      #   fill(xml)               writes what is inside, of 32f values
      #   attributes              -> Hash of its own attributes
      class Node
        # Full scale of the values of a bit depth.
        SCALES = {"8i" => 255.0, "10i" => 1023.0, "12i" => 4095.0, "16i" => 65_535.0, "16f" => 1.0, "32f" => 1.0}.freeze

        class << self
          # @return [Array<Class>]
          def kinds
            Mordant.load_folder(__dir__)
            subclasses
          end

          # @param markup [Markup]
          # @return [Node]
          # @raise [FormatError]
          def read(markup)
            kind = kinds.find { |one| one.element == markup.name }
            markup.fault("a process (#{kinds.map(&:element).sort.join(", ")})", markup.name) unless kind
            %w[IndexMap DynamicParameter].each do |name|
              found = markup.child(name)
              found&.fault("no #{name}; a Range process before it says the same", name)
            end
            scales = %w[inBitDepth outBitDepth].map { |name| SCALES.fetch(markup.choice(name, SCALES.keys)) }
            kind.parse(markup, in_scale: scales[0], out_scale: scales[1])
          end

          # Numbers of an Array element.
          #
          # @return [Array(Array<Integer>, Numo::DFloat)] its dimensions and numbers
          # @raise [FormatError] of a missing row too
          def array(markup)
            found = markup.child("Array") || markup.fault("an Array in #{markup.name}", "none")
            dimensions = found["dim"].to_s.split.map { |word| Integer(word, 10, exception: false) }
            found.fault("dim of whole numbers above 0", found["dim"]) unless dimensions.any? && dimensions.all? { |n| n&.positive? }
            count = dimensions.reduce(:*)
            found.fault("dim of at most #{MOST} numbers", found["dim"]) if count > MOST
            [dimensions, found.values(count)]
          end

          MOST = 8_000_000 # numbers of an Array
        end

        def attributes = {}

        # @param xml [Nokogiri::XML::Builder]
        def write(xml)
          xml.public_send(self.class.element, "inBitDepth" => "32f", "outBitDepth" => "32f", **attributes) { fill(xml) }
        end

        private

        def number(x) = format("%.9g", x)

        def words(values) = values.map { |x| number(x) }.join(" ")
      end
    end
  end
end
