# frozen_string_literal: true

module Mordant
  # What leaves: names, kinds of output, and the pictures that go into them.
  #
  # A kind of output is one file in kinds/: a class that is registered with
  #
  #   id, label, about, view           what it is and what it is converted to
  #   new(path:, ...)                  opens it for writing; see Kind
  #   write(frame, record_frame)       one finished frame, in the view's encoding
  #   close / abandon                  complete it, or leave nothing half written
  module Deliver
  end
end
