# frozen_string_literal: true

module Mordant
  module Media
    # Decodes stretches of a clip into Codes: a frame number is one picture, wherever reading
    # begins.
    #
    # Legal-range video is expanded to full range and Y'CbCr turned to RGB as Coding says.
    # Floats become the codes of Colour::Transfer::HalfCode.
    class Reader
      # @param path [String] a video, or a run of numbered frames in brackets
      # @param rate [Rational, nil] frames a second of a run of frames
      # @param range [String, nil] "full" or "legal" to read it as; nil: as the file says
      # @param facts [Facts, nil] of the file, where they are known
      # @param index [FrameIndex, #call, nil] of a video, where it is known, or what answers it; one of another state
      #   of the file is made anew
      # @param fit [String] one of Coding::FITS
      def initialize(path, rate: nil, range: nil, facts: nil, index: nil, fit: "stretch")
        @path, @rate, @range, @facts, @index, @fit = path, rate, range, facts, index, fit
        @sequence = Sequence.parse(path)
      end

      # @param first [Integer] frame, from 0
      # @param count [Integer]
      # @param width [Integer] of the raster to deliver
      # @param height [Integer]
      # @param every [Integer] frames from one that comes to the next
      # @param then_by [String, nil] ffmpeg filters that full-range RGB goes through before it comes
      # @param stacked [Integer] pictures that those make of one, under each other
      # @yieldparam codes [Codes] each frame in turn
      # @return [Integer] frames delivered
      # @raise [MediaError] of a file that ends before the frames asked for, or cannot be decoded
      def each(first:, count:, width:, height:, every: 1, then_by: nil, stacked: 1)
        there = ((stretches.size - first + every - 1) / every).clamp(0, count)
        stretches.each(first:, count: there, filter: [coding.to_rgb(width:, height:, fit: @fit), then_by].compact.join(","), bytes: width * height * stacked * bytes_a_pixel, every:) do |data|
          yield codes(data, width, height * stacked).tap { data.clear } # which is large
        end
        return count if there == count

        raise MediaError.new(@path, "it ends at frame #{stretches.size}, #{count - there} short of what it promises; " \
                                    "copy it again or take fewer frames")
      end

      # @return [Codes] one frame
      def frame(number, width:, height:)
        found = nil
        each(first: number, count: 1, width:, height:) { |codes| found = codes }
        found
      end

      # @param first [Integer] frame, from 0
      # @return [Array(Array<String>, String)] arguments that open it there for ffmpeg, and
      #   the filter to full-range RGB of that raster
      def decoding(first:, width:, height:)
        input, trim = stretches.opening(first)
        [input, [trim, coding.to_rgb(width:, height:, fit: @fit)].compact.join(",")]
      end

      # @return [Coding]
      # @raise [MediaError]
      def coding
        @coding ||= Coding.of(@facts || probe.facts, range: @range)
      rescue ParameterError => e
        raise MediaError.new(@path, e.found)
      end

      private

      def stretches = @stretches ||= if @sequence
                        RunFrames.new(@sequence, path: @path, rate: @rate)
                      else
                        VideoFrames.new(@path, index: @index.respond_to?(:call) ? @index.call : @index || probe.index)
                      end

      def probe = @probe ||= Probe.new(@path)

      def bytes_a_pixel = coding.float? ? 12 : 6

      def codes(data, width, height)
        return Codes.from_planes(data, width:, height:) unless coding.float?

        planes = Numo::SFloat.from_binary(data, [3, width * height])
        Codes.new(Colour::Transfer::HalfCode.codes(planes[[2, 0, 1], true].dup), width:, height:)
      end
    end
  end
end
