# frozen_string_literal: true

require "tempfile"

module Server
  # The sound of a stretch, out of its sources; silence where one has none.
  module Sound
    RATE = 48_000
    PATIENCE = 120 # seconds in which it may write nothing, and one for each second of the stretch

    module_function

    # @param stretch [Stretch]
    # @return [Tempfile, nil] a WAV file; nil where no source has sound
    # @raise [Mordant::MediaError]
    def of(stretch)
      rate = stretch.cut.project.rate
      pieces = pieces(stretch)
      sounding = pieces.map(&:first).uniq.select { |clip| sound?(clip) }
      return if sounding.empty?

      file = Tempfile.new(["sound", ".wav"])
      inputs = pieces.flat_map { |clip, shot| input(clip, shot, rate, sounding.include?(clip)) }
      heads = pieces.each_index.map { |index| "[#{index}:a:0]aformat=sample_rates=#{RATE}:channel_layouts=stereo[a#{index}]" }
      joined = "#{pieces.each_index.map { |index| "[a#{index}]" }.join}concat=n=#{pieces.size}:v=0:a=1[out]"
      Mordant::Media::Command.run(["ffmpeg", "-v", "error", "-y", "-nostdin", *inputs, "-filter_complex", [*heads, joined].join(";"), "-map", "[out]", "-c:a", "pcm_s24le", file.path],
        path: stretch.cut.name, limit: PATIENCE + stretch.length / rate)
      file
    end

    # @return [Boolean] a source of it has sound
    def any?(stretch) = pieces(stretch).map(&:first).uniq.any? { |clip| sound?(clip) }

    # @return [Array<Array(Clip, Mordant::Cut::Timeline::Shot)>]
    def pieces(stretch)
      stretch.cut.loaded_shots unless stretch.shot
      stretch.timeline.shots.map { |shot| [stretch.cut.shot(shot.key).clip, shot] }
    end

    def input(clip, shot, rate, sounds)
      seconds = format("%.6f", shot.length / rate)
      return ["-f", "lavfi", "-t", seconds, "-i", "anullsrc=r=#{RATE}:cl=stereo"] unless sounds

      own = clip.paced? ? rate : clip.rate # in which shots count its frames
      [*Mordant::Media::Command::LIMITS, "-ss", format("%.6f", shot.source_in / own), "-t", seconds, "-i", "file:#{clip.file}"]
    end

    def sound?(clip)
      return false if Mordant::Media::Sequence.parse(File.basename(clip.path))

      !Mordant::Media::Command.run([*Mordant::Media::Command::PROBE, "-select_streams", "a", "-show_entries", "stream=index", "-of", "csv=p=0", "file:#{clip.file}"], path: clip.path).strip.empty?
    end
  end
end
