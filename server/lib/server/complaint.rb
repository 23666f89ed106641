# frozen_string_literal: true

module Server
  # What stopped the work on an output, in words that say what to do.
  module Complaint
    # @param error [Exception]
    # @return [String]
    def self.of(error)
      case error
      when Errno::ENOSPC then "the disk is full; make room and try it again, finished frames are kept"
      when Errno::EACCES, Errno::EROFS, Errno::EPERM then "the delivery folder cannot be written to (#{error.message}); make it writable and try again"
      when Errno::ENOENT then "a folder or file went away (#{error.message}); bring it back and try again"
      else error.message
      end
    end
  end
end
