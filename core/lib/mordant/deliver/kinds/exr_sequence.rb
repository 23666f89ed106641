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

        # Makes the folder beside which the files go; it must not exist.
        def initialize(job)
          super
          FileUtils.mkdir_p(File.dirname(job.path))
          Dir.mkdir(job.path)
        end

        # Frames are numbered by their timecode, so that a frame has one name
        # whatever stretch is delivered.
        def write(frame, index)
          timecode = job.start + index
          bytes = Media::EXR.new(primaries: Colour::Primaries::AP0, rate: job.rate, timecode:,
            attributes: {"reelName" => job.reel.to_s, "comments" => "scene-linear ACES2065-1"}).encode(frame)
          name = "#{File.basename(job.path)}.#{timecode.frames.to_s.rjust(DIGITS, "0")}.exr"
          partial = File.join(job.path, ".#{name}.part")
          File.binwrite(partial, bytes)
          File.rename(partial, File.join(job.path, name))
        end

        def close = nil

        def abandon = FileUtils.rm_rf(job.path)
      end
    end
  end
end
