# frozen_string_literal: true

module Mordant
  # What leaves: names, formats, and the pictures that go into them.
  #
  # A format is one file in formats/: a SequenceFormat, which makes the bytes of one
  # frame, or a VideoFormat, which names an encoder and a container. Nothing else knows
  # of it; an order offers it at once.
  module Deliver
  end
end
