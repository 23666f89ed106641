# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    # One picture in an open format.
    module Still
      # id and label; sequence: the format of sequences whose files they are, or nil of one of
      # its own. PNG, TIFF, JPEG and DPX hold the codes of the view; OpenEXR scene-linear ACES2065-1.
      Kind = Struct.new(:id, :label, :extension, :view, :sequence, keyword_init: true) do
        # @param frame [Frame] in the view's encoding
        # @param facts [Media::FrameFacts]
        # @return [String] the file
        def bytes(frame, facts)
          return Media::Png.image(frame, 8).write_to_buffer(".jpg", Q: JPEG_QUALITY, subsample_mode: :off) unless sequence

          Format.fetch(sequence).bytes(frame, facts)
        end
      end

      JPEG_QUALITY = 95

      FORMATS = [
        Kind.new(id: "png", label: "PNG, 16 bit", extension: ".png", sequence: "png-16"), Kind.new(id: "tiff", label: "TIFF, 16 bit", extension: ".tif", sequence: "tiff-16"),
        Kind.new(id: "jpeg", label: "JPEG", extension: ".jpg"), Kind.new(id: "dpx", label: "DPX, 10 bit", extension: ".dpx", sequence: "dpx-10"),
        Kind.new(id: "exr", label: "OpenEXR, scene-linear", extension: ".exr", view: Grade::View::MASTER, sequence: "exr-half")
      ].freeze

      module_function

      # @return [Kind]
      # @raise [ParameterError]
      def kind(id)
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
