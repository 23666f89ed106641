#!/usr/bin/env ruby
# frozen_string_literal: true

# Makes the edit of "Salt Lantern" out of manifest.json, production.yml and the camera files:
#
#   bundle exec demo/edit.rb
#
# salt_lantern.edl and salt_lantern.otio, the cut as its editor hands it over; salt_lantern_2.edl, its second
# version; media/edit/salt_lantern.mov, the cut as one flat programme whose dissolve is baked in; and edit.json,
# what is true of them.

$LOAD_PATH.unshift(File.expand_path("../core/lib", __dir__))
require "mordant"
require "yaml"
require "fileutils"

module Demo
  HERE = __dir__

  # The lists, the programme and their truth.
  class Edit
    START = "01:00:00:00"
    PROGRAMME = "media/edit/salt_lantern.mov"
    VIEW = {"encoding" => "rec709-bt1886", "rendering" => "sdr-video-1.0"}.freeze

    def initialize
      @manifest = JSON.parse(File.read(File.join(HERE, "manifest.json")))
      @second = YAML.safe_load_file(File.join(HERE, "production.yml")).fetch("second")
      @rate = @manifest["rate"].to_r
      @shots = @manifest["shots"].to_h { |shot| [shot["shot"], shot] }
    end

    def make
      first = written(@manifest["shots"])
      title = @manifest["title"].upcase
      write("salt_lantern.edl", Mordant::Cut::EDL.write(title, first))
      write("salt_lantern.otio", Mordant::Cut::OpenTimeline.write(first, name: @manifest["title"]) << "\n")
      write("salt_lantern_2.edl", Mordant::Cut::EDL.write("#{title} 2", written(@second)))
      write("edit.json", JSON.pretty_generate(truth) << "\n")
      film
    end

    private

    def write(name, text) = File.write(File.join(HERE, name), text)

    def written(list)
      record = Mordant::Cut::Timecode.parse(START, @rate)
      list.map do |placed|
        shot = @shots.fetch(placed["shot"])
        start = Mordant::Cut::Timecode.parse(shot["start"], @rate)
        one = Mordant::Cut::Written.new(reel: shot["reel"], name: File.basename(shot["clip"]), url: shot["clip"], source_in: start + placed["in"], available: [start, shot["frames"]],
          length: placed["for"], record_in: record, dissolve: placed.fetch("dissolve", 0))
        record += placed["for"]
        one
      end
    end

    def truth
      record = 0
      changes = @manifest["shots"].filter_map do |shot|
        at = record
        record += shot["for"]
        next if at.zero?

        shot["dissolve"].zero? ? {frame: at, kind: "cut"} : {frame: at, kind: "dissolve", length: shot["dissolve"]}
      end
      {programme: {file: PROGRAMME, rate: "#{@rate.numerator}/#{@rate.denominator}", frames: record, start: START, changes:},
       second: {trimmed: ["1B"], moved: ["2B"], gone: ["2D"], new: [{clip: "1D", in: 42, for: 18}]}}
    end

    def timeline
      @timeline ||= Mordant::Cut::Edit.new(@manifest["shots"].map do |shot|
        Mordant::Cut::Timeline::Shot.new(key: shot["shot"], source_in: shot["in"], length: shot["for"], dissolve: shot["dissolve"], clip_frames: shot["frames"])
      end).then { |edit| Mordant::Cut::Timeline.new(edit.shots) }
    end

    def film
      target = File.join(HERE, PROGRAMME)
      FileUtils.mkdir_p(File.dirname(target))
      width, height = @manifest["raster"]
      space = Mordant::Colour::WorkingSpace.fetch("acescct")
      output = Mordant::Grade::Output.for(Mordant::Grade::View.new(encoding: VIEW["encoding"], rendering: VIEW["rendering"]), space)
      sources = @shots.transform_values { |shot| source(shot, space) }
      programme = Mordant::Deliver::Programme.new(timeline:, sources:, width:, height:)
      Mordant::Media::Command.feed(recorder(target, width, height), path: target) do |io|
        programme.each(first: 0, count: timeline.length) { |frame, _| io.write(Mordant::Media::Integers.interleave(output.run(frame), 16).to_binary) }
      end
      puts format("%s %d frames %.2f MB", PROGRAMME, timeline.length, File.size(target) / 1e6)
    end

    def source(shot, space)
      recipe = Mordant::Grade::Recipe.new(Mordant::Grade::Recipe::EMPTY_DOCUMENT)
      Mordant::Deliver::Programme::Source.new(reader: Mordant::Media::Reader.new(File.join(HERE, "media", shot["clip"])), plan: Mordant::Grade::Plan.new(recipe:, source: shot["encoding"], space:, compress: false))
    end

    def recorder(target, width, height)
      ["ffmpeg", "-v", "error", "-y", "-f", "rawvideo", "-pix_fmt", "rgb48le", "-s", "#{width}x#{height}", "-framerate", @rate.to_s, "-i", "pipe:0",
        "-vf", Mordant::Media::Coding.from_rgb("yuv420p", matrix: "bt709", range: Mordant::Colour::SignalRange::LEGAL),
        "-c:v", "libx264", "-preset", "slow", "-crf", "21", "-g", "48", "-threads", "2", "-color_primaries", "bt709", "-color_trc", "bt709", "-colorspace", "bt709", "-color_range", "tv",
        "-timecode", START, "-metadata", "encoding=#{VIEW["encoding"]}", "-movflags", "use_metadata_tags+faststart", "-fflags", "+bitexact", "file:#{target}"]
    end
  end
end

Demo::Edit.new.make if $PROGRAM_NAME == __FILE__
