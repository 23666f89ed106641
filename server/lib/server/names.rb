# frozen_string_literal: true

module Server
  # Names of files are bytes, whatever they mean; in the database and on screens they are
  # text. A byte that is no UTF-8 stands there as one character of the private use area, and
  # comes back from it.
  module Names
    PLACE = 0xF700 # of byte 0, in front of those that can occur, 0x80 to 0xFF
    STANDING = /[\u{F780}-\u{F7FF}]/

    module_function

    # @param bytes [String] as the file system has it
    # @return [String] UTF-8
    def text(bytes) = bytes.dup.force_encoding("UTF-8").scrub { |odd| odd.bytes.map { |byte| PLACE + byte }.pack("U*") }

    # @param text [String]
    # @return [String] as the file system has it
    def bytes(text)
      return text unless STANDING.match?(text)

      text.each_char.map { |char| STANDING.match?(char) ? [char.ord - PLACE].pack("C") : char.b }.join.force_encoding("UTF-8")
    end

    # @param text [String]
    # @return [String] for a person to read: "caf\\xE9.mov"
    def shown(text) = text.gsub(STANDING) { |char| format("\\x%02X", char.ord - PLACE) }
  end
end
