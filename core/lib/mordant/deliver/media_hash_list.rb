# frozen_string_literal: true

require "digest"
require "fileutils"
require "nokogiri"

module Mordant
  module Deliver
    # Checksums of files as an ASC media hash list: a numbered manifest in the folder ascmhl,
    # and the chain that names all of them.
    #
    # Source: ASC MHL specification, version 2.0.
    class MediaHashList
      SPACE = "urn:ASC:MHL:v2.0"
      CHAIN_SPACE = "urn:ASC:MHL:DIRECTORY:v2.0"
      FOLDER = "ascmhl"
      DIGITS = "123456789ABCDEFGHJKLMNPQRSTUVWXYZabcdefghijkmnopqrstuvwxyz" # of C4 ids, SMPTE ST 2114
      LENGTH = 88

      # @param root [String] the folder that paths are below
      def initialize(root)
        @root = root
      end

      # @param checksums [Array<Hash>] path, bytes and md5, see Check
      # @param at [Time]
      # @return [String] path of the manifest
      # @raise [SystemCallError]
      def write(checksums, at: Time.now.utc)
        FileUtils.mkdir_p(folder)
        number = generations.size + 1
        path = File.join(folder, format("%04d_%s_%sZ.mhl", number, File.basename(@root), at.strftime("%Y-%m-%d_%H%M%S")))
        File.write(path, manifest(checksums, at))
        File.write(File.join(folder, "ascmhl_chain.xml"), chain)
        path
      end

      # @param bytes [String]
      # @return [String] C4 id (SMPTE ST 2114)
      def self.c4(bytes)
        number = Digest::SHA512.hexdigest(bytes).to_i(16)
        digits = +""
        while number.positive?
          number, rest = number.divmod(58)
          digits << DIGITS[rest]
        end
        "c4#{digits.reverse.rjust(LENGTH, DIGITS[0])}"
      end

      private

      def folder = File.join(@root, FOLDER)

      def generations = Dir.children(folder).select { |name| name.end_with?(".mhl") }.sort

      def manifest(checksums, at)
        told = at.strftime("%Y-%m-%dT%H:%M:%SZ")
        document do |xml|
          xml.hashlist(xmlns: SPACE, version: "2.0") do
            xml.creatorinfo do
              xml.creationdate told
              xml.tool "Mordant", version: "1"
            end
            xml.processinfo { xml.process_ "in-place" }
            xml.hashes { checksums.each { |sum| entry(xml, sum, told) } }
          end
        end
      end

      def entry(xml, sum, told)
        xml.hash_ do
          xml.path sum[:path].delete_prefix("#{@root}/"), size: sum[:bytes], lastmodificationdate: File.mtime(sum[:path]).utc.strftime("%Y-%m-%dT%H:%M:%SZ")
          xml.md5 sum[:md5], action: "original", hashdate: told
        end
      end

      def chain
        document do |xml|
          xml.ascmhldirectory(xmlns: CHAIN_SPACE) do
            generations.each_with_index do |name, index|
              xml.hashlist(sequencenr: index + 1) do
                xml.path name
                xml.c4 self.class.c4(File.binread(File.join(folder, name)))
              end
            end
          end
        end
      end

      def document(&) = Nokogiri::XML::Builder.new(encoding: "UTF-8", &).to_xml
    end
  end
end
