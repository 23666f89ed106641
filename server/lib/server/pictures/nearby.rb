# frozen_string_literal: true

module Server
  module Pictures
    # Decodes, while the hand rests, where it is likely to go next: the frames at which it arrives in the shots around
    # the one that is looked at, the nearest first. Arriving there, only the grade is left to be made. Decoding is done
    # by another process, so that answers do not wait for it.
    class Nearby
      REST = 0.4 # seconds after a picture before anything is decoded
      REACH = 8 # shots on each side
      ENOUGH = 4 # seconds, after which no further one is begun

      class << self
        # @return [Nearby, nil] of a web process; nil elsewhere
        attr_accessor :current
      end

      # @param store [FrameStore]
      def initialize(store)
        @store = store
        @lock = Mutex.new
      end

      # @param wish [Wish] whose picture has been made; the newest counts
      # @return [Thread] that looks after it
      def after(wish)
        @lock.synchronize do
          @newest = [wish.cut.id, wish.frame]
          @thread = Thread.new { run } unless @thread&.alive?
          @thread
        end
      end

      # @param cut [Cut]
      # @param frame [Integer] that is looked at
      # @return [Array<Array(Shot, Integer)>] shots, and the frames of their clips that are not there yet
      def missing(cut, frame)
        width, height = Desk.raster(cut.project)
        members = cut.timeline.shots
        at = members.index { |member| (member.record_in...member.record_out).cover?(frame) } or return []
        places = (1..REACH).flat_map { |far| [at + far, at - far] }.select { |place| place.between?(0, members.size - 1) }
        places.map { |place| members[place] }.filter_map do |member|
          shot, number = cut.shot(member.key), member.shown_at(member.record_in + member.dissolve)
          [shot, number] unless shot.clip.placeholder? || @store.there?(shot.clip, number, width:, height:)
        end
      end

      private

      def run
        while (cut, frame = rested)
          ActiveRecord::Base.connection_pool.with_connection { decode(Cut.fetch(cut), frame) }
        end
      rescue Record::Missing, ActiveRecord::ActiveRecordError
        nil # the cut has gone meanwhile, or the database is away; whoever looks next is told
      end

      # @return [Array(Integer, Integer), nil] the newest cut and frame, once they have been that for a moment; nil: nothing is left to do
      def rested
        loop do
          place = @newest
          sleep REST
          @lock.synchronize do
            return @thread = nil if @newest.nil?
            next unless @newest.equal?(place)

            @newest = nil
            return place
          end
        end
      end

      def decode(cut, frame)
        width, height = Desk.raster(cut.project)
        over = now + ENOUGH
        missing(cut, frame).each_with_index do |(shot, number), far|
          break if @newest || now > over # what is newest comes first

          @store.fetch(shot.clip, number, width:, height:, ahead: (far < 2) ? FrameStore.ahead(shot.clip) : 1)
          @store.finish
        rescue Mordant::MediaError
          next # told to who goes there, where it happens again
        end
      end

      def now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
    end
  end
end
