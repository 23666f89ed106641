# frozen_string_literal: true

module Mordant
  # Files of pictures: what they are (Probe), what is in them (Reader, Stills)
  # and the ones we write. Originals are only ever read.
  #
  # ffmpeg and ffprobe run as child processes (Command), libvips in ours.
  module Media
  end
end
