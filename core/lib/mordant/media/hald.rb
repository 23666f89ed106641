# frozen_string_literal: true

require "tmpdir"

module Mordant
  module Media
    # A lattice that ffmpeg takes as a picture (a Hald image): a picture of level^3 by level^3 pixels holds the level^6 nodes,
    # red fastest, then green, then blue, in 16-bit planes. Beyond level 13 ffmpeg 5.1 reads tetrahedra
    # wrongly (it counts them in 32-bit floats).
    # Source: ffmpeg's documentation of its filter haldclut.
    module Hald
      SMALL = 2 # level of the picture by which the order is found
      private_constant :SMALL

      module_function

      # @param path [String] to write it to
      # @param nodes [Array<Numo::UInt16>] [level^6] red, green, blue of each node, 0..65_535
      # @raise [SystemCallError] of a full disk
      # @raise [MediaError] where ffmpeg cannot be asked
      def write(path, nodes)
        File.open(path, "wb") { |file| order.each { |channel| file.write(nodes[channel].to_binary) } }
      end

      # @param path [String] of a picture that was written
      # @param level [Integer] 2 to 13
      # @param prior [String] filters that come before, of 16-bit planes
      # @return [String] filters
      def filters(path, level:, prior: "null")
        "#{prior}[into];movie=#{path}:f=rawvideo:format_opts='pixel_format=gbrp16le\\:video_size=#{level**3}x#{level**3}'[lattice];[into][lattice]haldclut=clut=first:interp=tetrahedral"
      end

      # The channels of the planes, one after the other, as the ffmpeg that is installed reads them: some take the first plane,
      # which is green, for red.
      #
      # @return [Array<Integer>] 0 red, 1 green, 2 blue
      # @raise [MediaError]
      def order
        @order ||= Dir.mktmpdir("mordant") do |folder|
          path = File.join(folder, "order.raw")
          File.binwrite(path, [1, 2, 3].map { |value| [value * 10_000].pack("S<") * SMALL**6 }.join)
          made = Command.run(["ffmpeg", "-v", "error", "-nostdin", "-f", "lavfi", "-i", "color=gray:s=16x16,format=gbrp16le", "-vf", filters(path, level: SMALL), "-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "gbrp16le", "pipe:1"], path:)
          green, blue, red = made.unpack("S<*").each_slice(256).map { |plane| (plane.first / 10_000.0).round - 1 }
          [red, green, blue].each_with_index.sort.map(&:last)
        end
      end
    end
  end
end
