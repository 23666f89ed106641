# frozen_string_literal: true

require "fileutils"

module Mordant
  module Deliver
    module Kinds
      # Scene-linear ACES2065-1 in numbered half-float OpenEXR files, one a frame.
      class ExrSequence < Kind
        named "exr-ap0", "Scene-linear OpenEXR", extension: ".exr", sequence: true, view: Grade::View::MASTER,
          about: "ACES2065-1, half float, zip; one file a frame"

        DIGITS = 7

        # Makes the folder the files go in; it must not exist, unless to resume.
        def initialize(job)
          super
          FileUtils.mkdir_p(File.dirname(job.path))
          Dir.mkdir(job.path) unless job.resume && File.directory?(job.path)
        end

        def finished_frames
          (0..).find { |index| !File.exist?(file(job.start + index)) }
        end

        # Frames are numbered by their timecode, so that a frame has one name
        # whatever stretch is delivered.
        def write(frame, index)
          timecode = job.start + index
          bytes = Media::EXR.new(primaries: Colour::Primaries::AP0, rate: job.rate, timecode:,
            attributes: {"reelName" => job.reel.to_s, "comments" => "scene-linear ACES2065-1"}).encode(frame)
          partial = File.join(job.path, ".part")
          File.binwrite(partial, bytes)
          File.rename(partial, file(timecode))
        end

        def close = nil

        def abandon = FileUtils.rm_rf(job.path)

        private

        def file(timecode)
          File.join(job.path, "#{File.basename(job.path)}.#{timecode.frames.to_s.rjust(DIGITS, "0")}.exr")
        end
      end
    end
  end
end
