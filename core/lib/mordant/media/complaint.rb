# frozen_string_literal: true

module Mordant
  module Media
    # What a program that has failed said, for people: what is wrong and what can be done where that is known, and its own words without
    # names and addresses of its parts.
    module Complaint
      KNOWN = {
        /moov atom not found/ => "it breaks off before its index, or is no film; copy it again from where it came",
        /Format not on whitelist/ => "no container of pictures that is read here; MOV, MP4, Matroska, MXF, AVI, MPEG streams and NUT are",
        /matches no streams|does not contain any stream/ => "there is no picture in it; take one that has",
        /Permission denied/ => "Mordant may not open it; give the user that it runs as the right to",
        /\A[^\n]*Invalid data found when processing input\z/ => "nothing in it can be read as pictures; copy it again from where it came, or leave it out"
      }.freeze
      PART = /\[[^\]\n]* @ 0x\h+\] */ # of a program, and where in memory it is
      LINES = 2 # the last ones

      module_function

      # @param said [String] on standard error
      # @param path [String] the file it is about
      # @return [String, nil] nil where it said nothing
      def of(said, path)
        lines = said.gsub(PART, "").gsub(/(?:file:)?#{Regexp.escape(path)}: */, "").lines.map(&:strip).reject(&:empty?).uniq.last(LINES)
        own = lines.join("; ").gsub(/\s+/, " ").gsub(/whitelist '[^']*'/, "whitelist")
        return if own.empty?

        words = KNOWN.find { |pattern, _| pattern.match?(lines.join("\n")) }&.last
        words ? "#{words} (ffmpeg says: #{own})" : own
      end
    end
  end
end
