# frozen_string_literal: true

require "digest"

module Mordant
  module Deliver
    # Looks at what was written: whether every frame is there and can be decoded, which
    # frames are black or stand still, and what the files' checksums are.
    class Check
      WIDTH = 240 # of the pictures that are compared
      HEIGHT = 136
      BLACK = 0.02 # of the codes, at most
      DARK = 1e-4 # the same of light: eleven stops under mid grey
      STILL = 1e-3 # mean difference, as a share of the mean
      MOST_LISTED = 200

      # @param writer [SequenceWriter, VideoWriter]
      # @param rate [Rational]
      # @param first [Integer] record frame
      # @param count [Integer]
      # @param lost [Array<Integer>] frames that were left out
      # @param proof [Proof, nil] tells whether frames show what they should
      def initialize(writer, rate:, first:, count:, lost: [], proof: nil)
        @writer, @rate, @first, @count, @lost, @proof = writer, rate, first, count, lost, proof
      end

      # @return [Array<String>] whole paths
      def files = sequence? ? present.map { |record| @writer.file(record) } : [@writer.path].select { |path| File.exist?(path) }

      # @yieldparam done [Integer] frames
      # @return [Hash{Symbol => Object}] expected and found, frames; missing, undecodable, black,
      #   still, earlier, later and other (pictures than they should be) and unproven (a source that cannot be
      #   read any more), record frames as [first, count];
      #   compared, frames whose pictures were; checksums, path, bytes and MD5 of each file
      def call(&progress)
        black, still, undecodable = look(&progress)
        wrong = @proof&.faults(@read).to_h
        {expected: @count, found: sequence? ? present.size : @count - undecodable.size, missing: runs(missing), undecodable: runs(undecodable),
         black: runs(black), still: runs(still), lost: runs(@lost),
         **%i[earlier later other unproven].to_h { |kind| [kind, runs(wrong.fetch(kind, []))] }, compared: @read.size, checksums:}
      end

      # @return [Array<Hash>]
      def checksums = files.map { |path| {path:, bytes: File.size(path), md5: Digest::MD5.file(path).hexdigest} }

      private

      def sequence? = @writer.sheet.format.sequence?

      def float? = @writer.sheet.format.float?

      def records = (@first...(@first + @count)).to_a

      def present = @present ||= records.select { |record| @writer.has?(record) }

      def missing = sequence? ? records - present - @lost : []

      # @return [Array<Integer>] width and height of the pictures that are looked at
      def raster = @proof&.raster || [WIDTH, HEIGHT]

      def reader(path) = (@readers ||= {})[path] ||= Media::Reader.new(path, rate: @rate)

      def values(codes) = float? ? Numo::SFloat.cast(Colour::Transfer::HalfCode.table[codes.rgb]) : Numo::SFloat.cast(codes.rgb) / 65_535

      # Goes through all that is there; where decoding stops it goes on with the next frame.
      def look
        black, still, undecodable = [], [], []
        before = nil
        @read = {} # values of frames to be compared
        wanted = @proof ? @proof.frames - @lost : []
        each_picture(undecodable) do |codes, record|
          values = values(codes)
          black << record if values.max < (float? ? DARK : BLACK)
          still << record if before && (values - before).abs.mean < STILL * values.mean
          before = values
          @read[record] = values if wanted.include?(record)
          yield record - @first + 1 if block_given?
        end
        [black, still - black, undecodable]
      end

      def each_picture(undecodable, &block)
        stretches.each do |from, count, path, offset|
          at = 0
          while at < count && undecodable.size <= MOST_LISTED
            reached = read(path, offset + at, count - at) { |codes, step| block.call(codes, from + at + step) }
            at += reached
            next if at >= count

            # a decoder that stops may take good frames before the bad one along
            alone = read(path, offset + at, 1) { |codes, _| block.call(codes, from + at) }
            undecodable << (from + at) if alone.zero?
            at += 1
          end
        end
      end

      # @return [Integer] frames that could be read
      def read(path, first, count)
        done = 0
        reader(path).each(first:, count:, width: raster.first, height: raster.last) do |codes|
          yield codes, done
          done += 1
        end
        done
      rescue MediaError
        done
      end

      # @return [Array<Array>] record frame, count, path and frame in it, of what can be read in one go
      def stretches
        return [[@first, @count, @writer.path, 0]] unless sequence?

        present.chunk_while { |a, b| b == a + 1 }.map do |run|
          first, last = [run.first, run.last].map { |record| @writer.file(record)[/(\d+)\.\w+\z/, 1] }
          ending = File.extname(@writer.file(run.first))
          [run.first, run.size, "#{@writer.file(run.first).delete_suffix("#{first}#{ending}")}[#{first}-#{last}]#{ending}", 0]
        end
      end

      def runs(records) = records.sort.chunk_while { |a, b| b == a + 1 }.map { |run| [run.first, run.size] }.first(MOST_LISTED)
    end
  end
end
