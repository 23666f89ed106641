# frozen_string_literal: true

require "socket"
require "tmpdir"

module Server
  module Pictures
    # The web processes of this machine, which help each other: one that makes a picture gives bands of it to those that have nothing
    # to do just then. What they make comes back through memory that all share.
    #
    # Each process listens at a socket of its own. To whoever connects it says at once whether it is free, and is kept free
    # for that one then. It is told the cut and the request, looks at them while the other one does, and then which band to
    # make of what. A band that is not made for any reason is made by who asked for it.
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
      # @param kind [Module] one of Bands, which makes something of each
      # @return [Array, nil] that, from above; nil: nobody is free, or the picture cannot be made in bands
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def bands(wish, body, kind)
        return unless whole?(wish)

        free = others.each { |socket| tell(socket, {cut: wish.cut.id, body:}) }
        return if free.empty?

        @desk.prepare(wish)
        helpers = free.first(most(wish) - 1)
        return if helpers.empty?

        @desk.alone(wish).codes # decoded once, for all
        together(wish, body, kind, helpers)
      ensure
        free&.each(&:close)
      end

      private

      def at(name) = "/proc/self/fd/#{@folder.fileno}/#{name}"

      # A picture that is worth it, at the raster of the screen.
      def whole?(wish) = [wish.still, wish.test, wish.adds, wish.raster].none? && Desk.raster(wish.project).reduce(:*) >= LEAST

      # @return [Integer] processes that it is shared among at most, so that what lies around a band, which is made for it as well, is not more
      #   than the band; 1 of what is made of other frames too
      def most(wish)
        feed = @desk.alone(wish)
        return 1 if feed.nil? || @desk.kept_noise(wish).any?

        plan = @desk.plan(wish.project, wish.recipe_of(feed.shot), feed.encoding)
        return 1 unless plan.window.zero?

        raster = Mordant::Grade::Window.whole(*Desk.raster(wish.project))
        raster.height / [2 * (plan.margin(raster) + wish.screen.margin(raster)), 1].max
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

      def together(wish, body, kind, free)
        first, *rest = windows(Desk.raster(wish.project), free.size + 1)
        digest = digest(wish)
        free.zip(rest) { |socket, window| tell(socket, {kind:, window: window.to_h, digest:}) }
        [kind.make(@desk, wish, body, first), *free.zip(rest).map { |socket, window| taken(socket) || kind.make(@desk, wish, body, window) }]
      end

      # The first is for who asks, and larger: the others have to send what they have made.
      def windows((width, height), count)
        first = (height * OWN / count).ceil.clamp(1, height)
        rows = ((height - first) / (count - 1.0)).ceil
        [[0, first], *(first...height).step(rows).map { |top| [top, [rows, height - top].min] }].map { |top, high| Mordant::Grade::Window.new(left: 0, top:, width:, height: high) }
      end
      OWN = 1.06 # of an even share

      # All that the picture depends on: both see the same, or nothing is shared.
      #
      # @return [String, nil] nil of a dissolve
      def digest(wish)
        feed = @desk.alone(wish) or return
        Depends.digest(feed.stamp, Depends.grade(wish.project, wish.recipe_of(feed.shot), feed.encoding), wish.screen.stamp)
      end

      def tell(socket, request)
        text = Marshal.dump(request)
        socket.write([text.bytesize].pack("L<"), text)
      rescue SystemCallError
        nil # it has ended; its band is made here
      end

      # @return [Hash, nil] what another one tells; nil: it does not need anything any more
      def heard(socket)
        head = socket.read(4) if socket.wait_readable(PATIENCE)
        Marshal.load(socket.read(head.unpack1("L<"))) if head # rubocop:disable Security/MarshalLoad -- of a process of ours
      end

      # @return [Object, nil] what another one has made
      def taken(socket)
        return unless socket.wait_readable(PATIENCE)

        path = socket.read.to_s
        Marshal.load(File.binread(path)) unless path.empty? # rubocop:disable Security/MarshalLoad -- of a process of ours
      rescue SystemCallError, ArgumentError, TypeError, EOFError
        nil # it has ended, or did not make it
      ensure
        socket.close # which is free again
      end

      # Makes a band for another process. Nothing else is made here while it looks at the cut, as the other one does, nor while it makes the
      # band; but all else is while the other one has frames decoded.
      def serve(socket)
        seen = @desk.gate.try do
          socket.write(FREE)
          working { look(socket) }
        end
        return socket.write(BUSY) if seen == false

        wanted = heard(socket) if seen
        path = @desk.gate.try { working { made(seen, wanted) } } if wanted
        ReadCuts.current.give_back(*seen.read) if seen
        give(socket, path) if path
      rescue Mordant::Error
        nil # told by who asked, where it happens again
      rescue SystemCallError, IOError
        nil # the other one has gone, or there is no room for a band
      rescue => e
        warn("a band for another process: #{e.class}: #{e.message}")
      ensure
        socket.close
        FileUtils.rm_f(path) if path
      end

      def working(&) = Memory.current.during { ActiveRecord::Base.connection_pool.with_connection(&) }

      # What another process asks for: its cut as of ReadCuts#take, the request, and the digest of all that the picture depends on.
      Seen = Struct.new(:read, :body, :wish, :digest)
      private_constant :Seen

      # @return [Seen, nil]
      def look(socket)
        asked = heard(socket) or return
        read = ReadCuts.current.take(asked[:cut])
        wish = Asked.wish(read.last, asked[:body])
        Seen.new(read, asked[:body], wish, digest(wish))
      end

      # @return [String, nil] file that a band is in
      def made(seen, wanted)
        return unless wanted[:digest] == seen.digest

        band = wanted[:kind].make(@desk, seen.wish, seen.body, Mordant::Grade::Window.new(**wanted[:window]))
        File.join(File.directory?(SHARED) ? SHARED : Dir.tmpdir, "mordant-#{SecureRandom.hex(8)}").tap do |path|
          File.open(path, File::WRONLY | File::CREAT | File::EXCL | File::BINARY, 0o600) { |file| Marshal.dump(band, file) }
        rescue SystemCallError
          FileUtils.rm_f(path)
          raise
        end
      end

      def give(socket, path)
        socket.write(path)
        socket.close_write
        socket.wait_readable(PATIENCE) # until it has been read
      end
    end
  end
end
