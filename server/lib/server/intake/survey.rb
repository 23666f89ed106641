# frozen_string_literal: true

require "find"

module Server
  class Intake
    # Everything beneath a folder that could be a clip.
    class Survey
      MOST = 20_000 # files looked at
      # Companions of media that are not worth a complaint.
      QUIET = %w[.txt .md .json .xml .pdf .edl .csv .ale .wav .mp3 .jpg .jpeg .yml .cube .mhl .html .log].freeze

      # @param root [MediaRoot]
      # @param relative [String] folder below it
      def initialize(root, relative)
        @root, @relative = root, relative
      end

      # @return [Array<String>] paths relative to the root, sequences in brackets
      # @raise [Mordant::ParameterError]
      def paths
        top = @root.resolve(@relative)
        return [@relative] if File.file?(top)

        folders(top).flat_map { |folder, names| clips(folder, names) }
          .map { |path| Names.text(path.b.delete_prefix("#{@root.path}/".b)) }.sort
      end

      private

      def folders(top)
        files = []
        Find.find(top) do |path|
          Find.prune if File.basename(path).start_with?(".") && path != top
          files << path if File.file?(path) && inside?(path)
          break if files.size >= MOST
        end
        files.group_by { |path| File.dirname(path) }.transform_values { |paths| paths.map { |path| File.basename(path) } }
      end

      # A symlink may lead out of the root; what it leads to is not taken.
      def inside?(path) = !File.symlink?(path) || File.realpath(path).b.start_with?("#{@root.path}/".b)

      def clips(folder, names)
        sequences, others = Mordant::Media::Sequence.group(folder, names)
        media = others.reject { |name| QUIET.include?(File.extname(name.b).downcase) }
        sequences.map(&:path) + media.map { |name| File.join(folder.b, name.b) }
      end
    end
  end
end
