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
        finish(clip) if clip.ready?
        clip
      end

      # @param path [String]
      # @param reason [String] why it is not looked at
      # @return [Clip]
      def refuse(path, reason)
        clip = Clip.find_or_initialize_by(project: @project, media_root: @root, path:)
        clip.update!(status: "refused", reason:)
        clip
      end

      # Refused entries beneath a folder go that are not there any more, such as a run of
      # frames that has been completed.
      #
      # @param folder [String] relative to the root
      # @param paths [Array<String>] what is beneath it now
      def forget(folder, paths)
        beneath = Clip.where(project: @project, media_root: @root, status: "refused")
        beneath = beneath.where("path = ? OR starts_with(path, ?)", folder, "#{folder}/") unless folder.empty?
        beneath.where.not(path: paths).destroy_all
      end

      private

      def attributes(clip, path)
        unless KNOWN.include?(File.extname(path).downcase)
          raise Mordant::MediaError.new(path, "not a kind of file that is read here (#{KNOWN.join(" ")})")
        end
        if Mordant::Media::Sequence::EXTENSIONS.include?(File.extname(path).downcase) && !Mordant::Media::Sequence::BRACKETED.match?(File.basename(path))
          raise Mordant::MediaError.new(path, "a single picture; a run of frames needs numbers of 3 digits or more, a still is brought in on the Bench")
        end
        clip.path = path
        probe = Mordant::Media::Probe.new(clip.file)
        facts = probe.facts
        @index = (probe.index unless clip.run?)
        kept = range(clip, facts)
        clip.assign_attributes(columns(clip, facts))
        @speed = decoded(clip, facts)
        {status: "ready", reason: nil, **kept, **assignment(clip)}
      rescue Mordant::MediaError => e
        {status: "refused", reason: e.reason}
      rescue Mordant::ParameterError => e
        {status: "refused", reason: e.message}
      end

      # The first and the last frame must decode, or the file is cut short.
      #
      # @return [Float] frames a second at which it is decoded at the raster of the screen
      def decoded(clip, facts)
        reader = Mordant::Media::Reader.new(clip.file, rate: facts.rate, facts:, index: @index)
        there = facts.missing.first ? facts.missing.first.first - clip.run.first : facts.frames
        # what is measured decodes the frames of a short clip all
        reader.frame(facts.frames - 1, width: 64, height: 36) if facts.frames > [there, Mordant::Media::WorkingCopy::MEASURED].min
        Mordant::Media::WorkingCopy.speed(reader, frames: there, **%i[width height].zip(Pictures::Desk.raster(@project)).to_h)
      end

      # A clip that does not decode at twice its rate has a working copy made, if its owner
      # does not say otherwise.
      def finish(clip)
        ClipIndex.keep(clip, @index) if @index
        slow = @speed < clip.rate * Mordant::Media::WorkingCopy::QUICK
        clip.update!(decoding_speed: @speed.finite? ? @speed : nil)
        CopyJob.want(clip) if clip.copying == "always" || (clip.copying == "auto" && slow)
      end

      def columns(clip, facts)
        rate = (clip.persisted? && clip.rate_by_hand) ? clip.rate : facts.rate
        frames = (clip.pace == "time" && rate != @project.rate) ? Mordant::Media::Paced.frames(facts.frames, from: rate, to: @project.rate) : facts.frames
        {width: facts.width, height: facts.height, rate_numerator: rate.numerator, rate_denominator: rate.denominator,
         frames:, file_frames: facts.frames, variable: facts.variable, gaps: facts.missing, start_timecode: facts.start, reel: facts.reel, codec: facts.codec, pixel_format: facts.pixel_format,
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
