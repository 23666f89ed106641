# frozen_string_literal: true

module Server
  class Intake
    # Takes one file into a project: its facts, or the reason it cannot be used.
    class Taking
      KNOWN = (Mordant::Media::Probe::EXTENSIONS + Mordant::Media::Probe::RAW_EXTENSIONS + Mordant::Media::Sequence::EXTENSIONS).freeze

      # @param project [Project]
      # @param root [MediaRoot]
      def initialize(project, root)
        @project, @root = project, root
      end

      # What somebody assigned before is kept when a folder is taken in again.
      #
      # @param path [String] relative to the root
      # @return [Clip]
      def call(path)
        clip = Clip.find_or_initialize_by(project: @project, media_root: @root, path:)
        clip.assign_attributes(attributes(clip, path))
        clip.save!
        clip
      end

      private

      def attributes(clip, path)
        unless KNOWN.include?(File.extname(path).downcase)
          raise Mordant::MediaError.new(path, "not a kind of file that is read here (#{KNOWN.join(" ")})")
        end
        clip.path = path
        facts = Mordant::Media::Probe.call(clip.file)
        sound(clip, facts)
        kept = range(clip, facts)
        clip.assign_attributes(columns(facts))
        {status: "ready", reason: nil, **kept, **assignment(clip)}
      rescue Mordant::MediaError => e
        {status: "refused", reason: e.reason}
      rescue Mordant::ParameterError => e
        {status: "refused", reason: e.message}
      end

      # The first and the last frame must decode, or the file is cut short.
      def sound(clip, facts)
        reader = Mordant::Media::Reader.new(clip.file, rate: facts.rate)
        [0, facts.frames - 1].uniq.each { |number| reader.frame(number, width: 64, height: 36) }
      end

      def columns(facts)
        {width: facts.width, height: facts.height, rate_numerator: facts.rate.numerator, rate_denominator: facts.rate.denominator,
         frames: facts.frames, start_timecode: facts.start, reel: facts.reel, codec: facts.codec, pixel_format: facts.pixel_format,
         bit_depth: facts.bit_depth, camera: facts.camera, scene: facts.scene, take: facts.take,
         primaries: facts.primaries, transfer: facts.transfer, matrix: facts.matrix, declared_range: facts.range, declared_encoding: facts.encoding}
      end

      # A range that was set by hand stays, as an encoding does.
      def range(clip, facts) = (clip.persisted? && clip.range != clip.declared_range_was) ? {} : {range: facts.range}

      def assignment(clip)
        return {} if clip.encoding

        encoding, reason = Mordant::Media::Assignment.new(@project.input_rules).call(clip.facts)
        {encoding:, encoding_reason: reason}
      end
    end
  end
end
