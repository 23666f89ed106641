# frozen_string_literal: true

require "fileutils"

module Server
  # A finished picture to compare with: one that was brought in, such as a photograph or a
  # frame of an earlier job, or one of ours, frozen as it was. Kept as a 16-bit PNG.
  class Still < Record
    MOST = 500 # of a project

    belongs_to :project

    class << self
      # @param name [String] of the file it came from
      # @param bytes [String]
      # @param encoding [String] id of what its codes are in
      # @return [Still]
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def bring_in(project, name:, bytes:, encoding:)
        codes = read(name, bytes)
        keep(project, name: File.basename(name, ".*"), encoding:, origin: {file: File.basename(name)}, frame: codes.frame(encoding:))
      end

      # @param frame [Mordant::Frame] codes of a display encoding
      # @return [Still]
      # @raise [Mordant::ParameterError]
      def keep(project, name:, frame:, origin:, encoding: frame.encoding)
        text = check(project, name:, encoding:)
        transaction do
          still = create!(project:, name: text, encoding:, origin:)
          FileUtils.mkdir_p(folder)
          File.binwrite(still.file, Mordant::Media::Png.encode(frame, bits: 16, compression: 3))
          still
        end
      end

      # @return [String] the name as it is kept
      # @raise [Mordant::ParameterError] of a still that cannot be kept
      def check(project, name:, encoding:)
        raise Mordant::ParameterError.new(path: "encoding", expected: "a display encoding", found: encoding) if Mordant::Colour.encoding(encoding).scene?

        text = name.to_s.strip[0, 120]
        raise Mordant::ParameterError.new(path: "name", expected: "1 to 120 characters", found: name) if text.empty?
        raise Mordant::ParameterError.new(path: "stills", expected: "at most #{MOST} pictures", found: MOST + 1) if project.stills.count >= MOST

        text
      end

      def folder = File.join(Settings.library, "stills")

      private

      # Through a file of its own; what it is, its bytes say.
      def read(name, bytes)
        Dir.mktmpdir("mordant") do |folder|
          path = File.join(folder, "still")
          File.binwrite(path, bytes)
          Mordant::Media::Stills.read(path)
        rescue Mordant::MediaError => e
          raise Mordant::MediaError.new(File.basename(name), e.reason.gsub(path, "it"))
        end
      end
    end

    # @return [String] of its picture
    def file = File.join(self.class.folder, "#{id}.png")

    def forget
      destroy!
      FileUtils.rm_f(file)
    end

    def to_h = {id:, name:, encoding:, origin:}
  end
end
