# frozen_string_literal: true

require "socket"
require "tmpdir"

module Server
  module Pictures
    # The web processes of this machine, which help each other: one that makes a picture gives bands of it to those that have nothing
    # to do just then. What they make comes back through memory that all share.
    #
    # Each process listens at a socket of its own. To whoever connects it says at once whether it is free, and is kept free
    # for that one then. A band that is not made for any reason is made by who asked for it.
    class Hands
      LEAST = 150_000 # pixels of a picture that is shared
      SOON = 0.03 # seconds in which a process says whether it is free
      PATIENCE = 10 # seconds for a band
      SHARED = "/dev/shm" # files in memory
      FREE, BUSY = %w[f b].freeze

      # Of this process, where it has been opened.
      class << self
        attr_accessor :current
      end

      # @param folder [String] of sockets, the same for all processes
      # @param desk [Desk]
      # @param name [String] of this process's socket
      def initialize(desk, folder: File.join(Settings.cache, "hands"), name: "#{Process.pid}.sock")
        @desk = desk
        FileUtils.mkdir_p(folder)
        @folder = File.open(folder) # a socket's whole path would be too long
        @own = name
      end

      # Listens from now on.
      #
      # @return [self]
      def open
        FileUtils.rm_f(at(@own))
        server = UNIXServer.new(at(@own))
        @thread = Thread.new { loop { serve(server.accept) } }
        self
      end

      # @param wish [Wish]
      # @param body [Hash] of the request that it was read from
      # @return [Array<Mordant::Frame>] as Desk#picture, bit for bit
      def picture(wish, body)
        return @desk.picture(wish) unless shared?(wish)

        @desk.alone(wish).codes # decoded once, for all
        free = others
        return @desk.picture(wish) if free.empty?

        together(wish, body, free)
      ensure
        free&.each(&:close)
      end

      private

      def at(name) = "/proc/self/fd/#{@folder.fileno}/#{name}"

      # A picture of one shot, made pixel by pixel or of few around, of frames that are there.
      def shared?(wish)
        return false if wish.still || wish.test || wish.adds || wish.raster

        feed = @desk.alone(wish) or return false
        width, height = Desk.raster(wish.project)
        return false if width * height < LEAST || @desk.kept_noise(wish).any?

        plan = @desk.plan(wish.project, wish.recipe_of(feed.shot), feed.encoding)
        raster = Mordant::Grade::Window.whole(width, height)
        plan.window.zero? && plan.margin(raster) + wish.screen.margin(raster) < height / 8
      end

      # @return [Array<UNIXSocket>] to processes that are free, kept so
      def others
        Dir.glob("*.sock", base: @folder.path).reject { |name| name == @own }.filter_map do |name|
          socket = UNIXSocket.new(at(name))
          next socket if socket.wait_readable(SOON) && socket.read(1) == FREE

          socket.close
          nil
        rescue Errno::ECONNREFUSED, Errno::ENOENT, Errno::ECONNRESET
          FileUtils.rm_f(at(name)) # its process has ended
          nil
        end
      end

      def together(wish, body, free)
        first, *rest = bands(Desk.raster(wish.project), free.size + 1)
        digest = digest(wish)
        free.zip(rest) { |socket, window| ask(socket, {cut: wish.cut.id, body:, window: window.to_h, digest:}) }
        parts = [@desk.part(wish, first), *free.zip(rest).map { |socket, window| taken(socket, window) || @desk.part(wish, window) }]
        whole = parts.transpose.uniq { |frames| frames.map(&:object_id) }.to_h { |frames| [frames.first.object_id, joined(frames, Desk.raster(wish.project))] }
        parts.first.map { |frame| whole.fetch(frame.object_id) }
      end

      # The first is for who asks, and larger: the others have to look at the cut, and send what they have made.
      def bands((width, height), count)
        first = (height * OWN / count).ceil.clamp(1, height)
        rows = ((height - first) / (count - 1.0)).ceil
        [[0, first], *(first...height).step(rows).map { |top| [top, [rows, height - top].min] }].map { |top, high| Mordant::Grade::Window.new(left: 0, top:, width:, height: high) }
      end
      OWN = 1.12 # of an even share

      def joined(frames, (width, height)) = Mordant::Frame.new(Numo::SFloat.hstack(frames.map(&:rgb)), width:, height:, encoding: frames.first.encoding)

      # All that the picture depends on: both see the same, or nothing is shared.
      def digest(wish)
        feed = @desk.alone(wish)
        Depends.digest(feed.stamp, Depends.grade(wish.project, wish.recipe_of(feed.shot), feed.encoding), wish.screen.stamp)
      end

      def ask(socket, request)
        text = Marshal.dump(request)
        socket.write([text.bytesize].pack("L<"), text)
      rescue SystemCallError
        nil # it has ended; its band is made here
      end

      # @return [Array<Mordant::Frame>, nil]
      def taken(socket, window)
        return unless socket.wait_readable(PATIENCE)

        made = Marshal.load(socket.read.to_s) # rubocop:disable Security/MarshalLoad -- of a process of ours
        data = File.binread(made[:path])
        frames = made[:frames].each_with_index.map do |(encoding, size), index|
          start = made[:frames].first(index).sum(&:last)
          Mordant::Frame.new(Numo::SFloat.from_binary(data.byteslice(start, size), [3, window.size]), width: window.width, height: window.height, encoding:)
        end
        made[:which].map { |index| frames[index] }
      rescue SystemCallError, ArgumentError, TypeError, EOFError
        nil # it has ended, or did not make it
      end

      # Makes a band for another process, if nothing else is made here.
      def serve(socket)
        free = @desk.gate.try do
          socket.write(FREE)
          socket.wait_readable(PATIENCE) && (head = socket.read(4)) && give(socket, Marshal.load(socket.read(head.unpack1("L<")))) # rubocop:disable Security/MarshalLoad
          true
        end
        socket.write(BUSY) unless free
      rescue SystemCallError, IOError
        nil # the other one has gone
      ensure
        socket.close
      end

      def give(socket, request)
        frames = Memory.current.during { ActiveRecord::Base.connection_pool.with_connection { made(request) } } or return
        unlike = frames.uniq(&:object_id)
        path = File.join(File.directory?(SHARED) ? SHARED : Dir.tmpdir, "mordant-#{SecureRandom.hex(8)}")
        File.open(path, File::WRONLY | File::CREAT | File::EXCL | File::BINARY, 0o600) { |file| unlike.each { |frame| file.write(frame.rgb.to_binary) } }
        socket.write(Marshal.dump({path:, frames: unlike.map { |frame| [frame.encoding, frame.rgb.byte_size] }, which: frames.map { |frame| unlike.index { |one| one.equal?(frame) } }}))
        socket.close_write
        socket.wait_readable(PATIENCE) # until it has been read
      rescue Mordant::Error
        nil # told by who asked, where it happens again
      rescue SystemCallError, IOError
        nil # there is no room for it, or nobody who wants it
      rescue => e
        warn("a band for another process: #{e.class}: #{e.message}")
      ensure
        FileUtils.rm_f(path) if path
      end

      def made(request)
        wish = Asked.wish(Cut.includes(:project).fetch(request[:cut]), request[:body])
        @desk.part(wish, Mordant::Grade::Window.new(**request[:window])) if digest(wish) == request[:digest]
      end
    end
  end
end
