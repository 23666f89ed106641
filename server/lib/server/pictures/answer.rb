# frozen_string_literal: true

module Server
  module Pictures
    # Several binary parts under one JSON header: the header's length (32 bits,
    # little-endian), the header, then the parts as its "parts" lists them with
    # name and length.
    module Answer
      TYPE = "application/vnd.mordant.picture"

      module_function

      # @param header [Hash]
      # @param parts [Hash{Symbol => String}]
      # @return [String] binary
      def pack(header, parts)
        listed = parts.map { |name, bytes| {name:, length: bytes.bytesize} }
        text = header.merge(parts: listed).to_json.b
        [text.bytesize].pack("L<") << text << parts.values.map(&:b).join
      end
    end
  end
end
