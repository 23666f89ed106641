# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    # One picture in an open format.
    module Still
      # Of each format: words, and how a frame becomes its bytes. PNG, TIFF, JPEG and DPX
      # hold the codes of the view; OpenEXR scene-linear ACES2065-1.
      Format = Struct.new(:id, :label, :extension, :view, :bytes, keyword_init: true)

      JPEG_QUALITY = 95

      FORMATS = [
        Format.new(id: "png", label: "PNG, 16 bit", extension: ".png", bytes: ->(frame, _) { Media::Png.encode(frame, bits: 16, compression: 6) }),
        Format.new(id: "tiff", label: "TIFF, 16 bit", extension: ".tif", bytes: ->(frame, _) { Media::Png.image(frame, 16).write_to_buffer(".tif", compression: :deflate, predictor: :horizontal) }),
        Format.new(id: "jpeg", label: "JPEG", extension: ".jpg", bytes: ->(frame, _) { Media::Png.image(frame, 8).write_to_buffer(".jpg", Q: JPEG_QUALITY, subsample_mode: :off) }),
        Format.new(id: "dpx", label: "DPX, 10 bit", extension: ".dpx", bytes: ->(frame, facts) { Media::Dpx.new(bits: 10).encode(frame, facts) }),
        Format.new(id: "exr", label: "OpenEXR, scene-linear", extension: ".exr", view: Grade::View::MASTER, bytes: lambda do |frame, facts|
          Media::EXR.new(primaries: Colour::Primaries::AP0, rate: facts.rate, timecode: facts.timecode, attributes: {"reelName" => facts.reel.to_s, "comments" => "scene-linear ACES2065-1"}).encode(frame)
        end)
      ].freeze

      module_function

      # @raise [ParameterError]
      def format(id)
        FORMATS.find { |one| one.id == id } || raise(ParameterError.new(path: "format", expected: FORMATS.map(&:id).join(", "), found: id))
      end

      # Writes it under a name nothing has: with -2, -3 and so on after one that is taken.
      #
      # @param root [String] the delivery folder
      # @param relative [String] below it, without extension
      # @param bytes [String]
      # @return [String] the relative path it has
      # @raise [ParameterError] of a name that leads elsewhere
      # @raise [SystemCallError] of a folder that cannot be written to
      def place(root, relative, extension, bytes)
        (1..).each do |number|
          name = "#{relative}#{"-#{number}" if number > 1}#{extension}"
          next if File.exist?(File.join(root, name))

          path = Naming.place(root, name)
          FileUtils.mkdir_p(File.dirname(path))
          return name if write_new(path, bytes)
        end
      end

      # @return [Boolean] false when somebody else has taken the name meanwhile
      def write_new(path, bytes)
        partial = File.join(File.dirname(path), ".#{File.basename(path)}.#{Process.pid}.part")
        File.binwrite(partial, bytes)
        File.link(partial, path) # unlike a rename, refuses to overwrite
        true
      rescue Errno::EEXIST
        false
      ensure
        FileUtils.rm_f(partial)
      end
    end
  end
end
